export { migrateDatabase, openDatabase, type Database, type Db } from './db/database';
export { prepareDatabase } from './db/leastRights';
export { seedDemo, type Seeded } from './demo/seedDemo';
export { demoPassword, demoPeople, demoShopName } from './demo/demoPeople';
export { makeApp, type AppOptions } from './app';
