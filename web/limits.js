// Takes the limits (lengths, counts, smallest and largest numbers) out of the API description, for the fields of the desk.
import { readFileSync, writeFileSync } from 'node:fs'

const { components } = JSON.parse(readFileSync('../docs/openapi.json', 'utf8'))
const NAMES = { maxLength: 'longest', maxItems: 'most', maximum: 'most', minimum: 'least' }
const limits = {}
for (const [schema, { properties = {} }] of Object.entries(components.schemas)) {
  for (const [field, property] of Object.entries(properties)) {
    for (const [keyword, name] of Object.entries(NAMES)) {
      if (keyword in property) ((limits[schema] ??= {})[field] ??= {})[name] = property[keyword]
    }
  }
}
writeFileSync('src/api/limits.ts', `// Made from docs/openapi.json by "npm run types".\nexport const limits = ${JSON.stringify(limits, null, 2).replaceAll('"', '')} as const\n`)
