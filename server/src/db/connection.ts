import pg from 'pg';
import { Sequelize } from 'sequelize';

// A `date` stays the text it is: no time zone can move it over midnight. 1082 is PostgreSQL's type id of date.
pg.types.setTypeParser(1082, (text) => text);

/** Opens a pool of connections. Queries reach `log` at debug level, without their values. */
export function connect(url: string, log?: (sql: string) => void): Sequelize {
  return new Sequelize(url, {
    dialect: 'postgres',
    dialectModule: pg,
    logging: log ?? false,
    pool: { max: 10, idle: 10_000, acquire: 15_000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
}
