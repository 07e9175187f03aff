package oakbasket.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.parameters.RequestBody;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import java.util.Set;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import oakbasket.core.standing.Tile;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The head of the API description, and what every operation shares. */
@Configuration(proxyBeanMethods = false)
class OpenApiConfig {

    /** Operations that take a file as it is, and read it themselves. */
    private static final Set<String> BYTES_IN = Set.of("keepForm", "read", "stage", "rehearseFile", "receiveSmallFiles", "putIn", "answerAs", "putBytes", "putLogoIn");

    static {
        SpringDocUtils.getConfig().replaceWithClass(Tile.class, Integer.class) // written as one number by TileCode
                .replaceWithClass(Fault.class, FaultJson.FieldError.class).replaceWithClass(Remark.class, String.class);
    }

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Oak Basket").version("1").description("""
                        The desk: session cookie oak-session; every change needs the cookie XSRF-TOKEN repeated in the header X-XSRF-TOKEN. \
                        The sender's side: the last part of the request link in the header Oak-Link, the ticket that a passcode gave in Oak-Ticket, \
                        the key of a sending in Oak-Submission. \
                        Files come in by tus 1.0.0 at /api/uploads: Tus-Resumable, Upload-Length, Upload-Metadata (filename, item), Upload-Offset; \
                        answers carry Upload-Offset, Upload-Length, Upload-Metadata and Upload-Expires; X-HTTP-Method-Override is understood behind POST. \
                        Every 4xx and 5xx is a problem detail of RFC 9457; 429 and 503 say in Retry-After when to come again."""))
                .servers(List.of(new Server().url("/")));
    }

    @Bean
    OpenApiCustomizer problems() {
        Schema<?> field = new ObjectSchema().addProperty("field", text()).addProperty("detail", text()).required(List.of("field", "detail"));
        Schema<?> problem = new ObjectSchema().addProperty("type", text()).addProperty("title", text()).addProperty("detail", text())
                .addProperty("status", new Schema<>().type("integer").types(Set.of("integer")))
                .addProperty("errors", new Schema<>().types(Set.of("array")).items(field));
        return api -> {
            api.getComponents().addSchemas("Problem", problem);
            ApiLimits.into(api);
            api.getPaths().values().stream().flatMap(path -> path.readOperations().stream()).filter(operation -> BYTES_IN.contains(operation.getOperationId()))
                    .forEach(operation -> operation.requestBody(bytes()));
            Content content = new Content().addMediaType("application/problem+json", new MediaType().schema(new Schema<>().$ref("#/components/schemas/Problem")));
            api.getPaths().values().forEach(path -> path.readOperations().forEach(operation -> operation.getResponses()
                    .addApiResponse("default", new ApiResponse().description("A problem detail (RFC 9457)").content(content))));
        };
    }

    private static RequestBody bytes() {
        MediaType any = new MediaType().schema(new Schema<>().types(Set.of("string")).format("binary"));
        return new RequestBody().required(true).content(new Content().addMediaType("application/octet-stream", any));
    }

    private static Schema<?> text() {
        return new Schema<>().types(Set.of("string"));
    }
}
