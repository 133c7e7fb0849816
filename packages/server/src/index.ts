export { readConfig, type ServerConfig } from './config';
export { openDatabase, type Database } from './db/database';
export { lockDataFolder, runningAddress, startServer, type RunningServer } from './start-server';
export { createApp, type Server } from './app';
export type { ListedCollection } from './collections/collection-keeping';
export { openCollections, type CollectionAccess } from './collections/collection-access';
