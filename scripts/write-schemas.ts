import { mkdirSync, writeFileSync } from 'node:fs';
import { families } from '@/core/families';
import { unitSheetJsonSchema } from '@/core/formats/unit-sheet';

mkdirSync('docs/schemas', { recursive: true });
for (const family of families)
  writeFileSync(`docs/schemas/${family.id}.schema.json`, `${JSON.stringify(unitSheetJsonSchema(family), null, 2)}\n`);
