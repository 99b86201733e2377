/** A time as Sequelize keeps it in a column of SQLite, for statements that bind it themselves; null stays null. */
export function sqlTime(at: Date | null): string | null {
  return at && at.toISOString().replace('T', ' ').replace('Z', ' +00:00');
}
