package oakbasket.server.web;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json31;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Describes records as they are: every component is there, and may be null only where its type says so. */
@Component
class RecordSchemas implements ModelConverter {

    @Override
    public @Nullable Schema<?> resolve(AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        if (!chain.hasNext()) {
            return null;
        }
        Schema<?> resolved = chain.next().resolve(type, context, chain);
        JavaType java = Json31.mapper().constructType(type.getType());
        Schema<?> model = java == null ? null : context.getDefinedModels().get(java.getRawClass().getSimpleName());
        if (java != null && java.getRawClass().isRecord() && model != null && model.getProperties() != null) {
            describe(java.getRawClass(), model);
        }
        return resolved;
    }

    private static void describe(Class<?> record, Schema<?> model) {
        @SuppressWarnings("rawtypes")
        Map<String, Schema> properties = model.getProperties();
        model.setRequired(List.copyOf(properties.keySet()));
        for (RecordComponent component : record.getRecordComponents()) {
            Schema<?> property = properties.get(component.getName());
            if (property == null || !component.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
                continue;
            }
            if (property.get$ref() != null) {
                Schema<?> either = new Schema<>();
                either.addAnyOfItem(new Schema<>().$ref(property.get$ref()));
                either.addAnyOfItem(new Schema<>().types(java.util.Set.of("null")));
                properties.put(component.getName(), either);
            } else {
                property.addType("null");
            }
        }
    }
}
