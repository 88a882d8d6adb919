import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';

const { UUID, TEXT, DATEONLY, DATE } = DataTypes;
// A new object each time: Sequelize writes the column's name into the one it is given.
export const key = () => ({ type: UUID, primaryKey: true });
export const voidable = () => ({
  onDay: DATEONLY,
  note: TEXT,
  authorId: UUID,
  recordedAt: DATE,
  voidedAt: DATE,
  voidedBy: UUID,
  voidReason: TEXT,
});

/** One table; a column that its row has not does not compile. */
export function table<Row extends object>(
  sequelize: Sequelize,
  name: string,
  columns: Record<keyof Row, unknown>,
): ModelStatic<Model<Row, Partial<Row>>> {
  return sequelize.define<Model<Row, Partial<Row>>>(
    name,
    columns as ModelAttributes<Model<Row, Partial<Row>>>,
  );
}
