import { openDatabase } from '@/data/database';

const db = await openDatabase();
await db.destroy();
