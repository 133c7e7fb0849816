import type { QueryInterface } from 'sequelize';

/** One step of the database's shape, as an object in code so that it survives bundling. */
export interface Migration {
  readonly name: string;
  up(queries: QueryInterface): Promise<void>;
  down(queries: QueryInterface): Promise<void>;
}
