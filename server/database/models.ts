import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A machine in the library, as it is listed. Its record is that of its newest revision. */
export class MachineRow extends Model<
  InferAttributes<MachineRow>,
  InferCreationAttributes<MachineRow>
> {
  declare id: string;
  declare revision: number;
  declare complete: boolean;
  declare maker: string;
  declare model: string;
  declare variant: string;
  declare searchText: string;
  declare fans: number;
  declare pipes: number;
  declare stacks: number;
  declare thicknessMm: number | null;
  declare massKg: number | null;
  declare chamber: boolean;
  declare finAreaCm2: number | null;
  declare pipeSectionMm2: number | null;
  declare togetherAt28W: number | null;
  declare togetherAt32W: number | null;
  declare togetherAt36W: number | null;
  declare togetherAt40W: number | null;
  declare togetherAt45W: number | null;
  declare togetherFullW: number | null;
  declare describedBy: number;
  declare putAsideAt: Date | null;
  declare unitId: string;
  declare variantId: string;
  declare stateName: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** A photo or paper of a machine, of one of its parts or figures. */
export class AttachmentRow extends Model<
  InferAttributes<AttachmentRow>,
  InferCreationAttributes<AttachmentRow>
> {
  declare id: string;
  declare machineId: string;
  declare revision: number;
  declare path: string;
  declare name: string;
  declare type: string;
  declare sha256: string;
  declare bytes: number;
  declare widthPx: number | null;
  declare heightPx: number | null;
  declare takenAt: string | null;
  declare caption: string;
  declare covers: string;
  declare exported: boolean;
  declare putAsideAt: Date | null;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** What several units have in common. Its cooling stands in each of its machines' records, kept equal by the store. */
export class VariantRow extends Model<
  InferAttributes<VariantRow>,
  InferCreationAttributes<VariantRow>
> {
  declare id: string;
  declare copiedFrom: string | null;
  declare createdAt: CreationOptional<Date>;
}

/** The one notebook on the bench. */
export class UnitRow extends Model<InferAttributes<UnitRow>, InferCreationAttributes<UnitRow>> {
  declare id: string;
  declare variantId: string;
  declare revision: number;
  declare facts: string;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** A word a lab put on a machine. */
export class MachineTagRow extends Model<
  InferAttributes<MachineTagRow>,
  InferCreationAttributes<MachineTagRow>
> {
  declare machineId: string;
  declare tag: string;
}

/** A record as it was at one revision. */
export class RevisionRow extends Model<
  InferAttributes<RevisionRow>,
  InferCreationAttributes<RevisionRow>
> {
  declare id: CreationOptional<number>;
  declare machineId: string;
  declare revision: number;
  declare record: string;
  declare createdAt: CreationOptional<Date>;
}

/** A log of an opening as it was at one revision. */
export class OpenUpLogRow extends Model<
  InferAttributes<OpenUpLogRow>,
  InferCreationAttributes<OpenUpLogRow>
> {
  declare id: CreationOptional<number>;
  declare machineId: string;
  declare revision: number;
  declare log: string;
  declare createdAt: CreationOptional<Date>;
}

/** One change of a lab's own default; all null: back to the built-in one. */
export class LabDefaultRow extends Model<
  InferAttributes<LabDefaultRow>,
  InferCreationAttributes<LabDefaultRow>
> {
  declare id: CreationOptional<number>;
  declare key: string;
  declare value: number | null;
  declare low: number | null;
  declare high: number | null;
  declare note: string;
  declare createdAt: CreationOptional<Date>;
}

/** What a lab has decided for itself, as it was after one change. */
export class LabSettingRow extends Model<
  InferAttributes<LabSettingRow>,
  InferCreationAttributes<LabSettingRow>
> {
  declare id: CreationOptional<number>;
  declare key: string;
  declare value: string;
  declare createdAt: CreationOptional<Date>;
}

/** The models of one open database; classes are made anew for each, so that several can be open at once. */
export interface Models {
  Machine: typeof MachineRow;
  Variant: typeof VariantRow;
  Unit: typeof UnitRow;
  MachineTag: typeof MachineTagRow;
  Revision: typeof RevisionRow;
  Attachment: typeof AttachmentRow;
  OpenUpLog: typeof OpenUpLogRow;
  LabDefault: typeof LabDefaultRow;
  LabSetting: typeof LabSettingRow;
}

export function defineModels(sequelize: Sequelize): Models {
  class Machine extends MachineRow {}
  Machine.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      complete: { type: DataTypes.BOOLEAN, allowNull: false },
      maker: { type: DataTypes.STRING, allowNull: false },
      model: { type: DataTypes.STRING, allowNull: false },
      variant: { type: DataTypes.STRING, allowNull: false },
      searchText: { type: DataTypes.TEXT, allowNull: false },
      fans: { type: DataTypes.INTEGER, allowNull: false },
      pipes: { type: DataTypes.INTEGER, allowNull: false },
      stacks: { type: DataTypes.INTEGER, allowNull: false },
      thicknessMm: { type: DataTypes.FLOAT, allowNull: true },
      massKg: { type: DataTypes.FLOAT, allowNull: true },
      chamber: { type: DataTypes.BOOLEAN, allowNull: false },
      finAreaCm2: { type: DataTypes.FLOAT, allowNull: true },
      pipeSectionMm2: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt28W: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt32W: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt36W: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt40W: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt45W: { type: DataTypes.FLOAT, allowNull: true },
      describedBy: { type: DataTypes.INTEGER, allowNull: false },
      togetherFullW: { type: DataTypes.FLOAT, allowNull: true },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      unitId: { type: DataTypes.STRING(36), allowNull: false },
      variantId: { type: DataTypes.STRING(36), allowNull: false },
      stateName: { type: DataTypes.STRING(80), allowNull: false, defaultValue: 'as found' },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'machines', modelName: 'Machine' },
  );
  class Variant extends VariantRow {}
  Variant.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      copiedFrom: { type: DataTypes.STRING(36), allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'variants', modelName: 'Variant', updatedAt: false },
  );
  class Unit extends UnitRow {}
  Unit.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      variantId: { type: DataTypes.STRING(36), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      facts: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'units', modelName: 'Unit' },
  );
  class MachineTag extends MachineTagRow {}
  MachineTag.init(
    {
      machineId: { type: DataTypes.STRING(36), primaryKey: true },
      tag: { type: DataTypes.STRING(40), primaryKey: true },
    },
    { sequelize, tableName: 'machine_tags', modelName: 'MachineTag', timestamps: false },
  );
  class Revision extends RevisionRow {}
  Revision.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      record: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'revisions', modelName: 'Revision', updatedAt: false },
  );
  class Attachment extends AttachmentRow {}
  Attachment.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      path: { type: DataTypes.STRING(200), allowNull: false },
      name: { type: DataTypes.STRING(200), allowNull: false },
      type: { type: DataTypes.STRING(40), allowNull: false },
      sha256: { type: DataTypes.STRING(64), allowNull: false },
      bytes: { type: DataTypes.INTEGER, allowNull: false },
      widthPx: { type: DataTypes.INTEGER, allowNull: true },
      heightPx: { type: DataTypes.INTEGER, allowNull: true },
      takenAt: { type: DataTypes.STRING(30), allowNull: true },
      caption: { type: DataTypes.STRING(500), allowNull: false },
      covers: { type: DataTypes.TEXT, allowNull: false },
      exported: { type: DataTypes.BOOLEAN, allowNull: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'attachments', modelName: 'Attachment' },
  );
  class OpenUpLog extends OpenUpLogRow {}
  OpenUpLog.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      log: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'open_up_logs', modelName: 'OpenUpLog', updatedAt: false },
  );
  class LabDefault extends LabDefaultRow {}
  LabDefault.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      key: { type: DataTypes.STRING(120), allowNull: false },
      value: { type: DataTypes.DOUBLE, allowNull: true },
      low: { type: DataTypes.DOUBLE, allowNull: true },
      high: { type: DataTypes.DOUBLE, allowNull: true },
      note: { type: DataTypes.STRING(500), allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'lab_defaults', modelName: 'LabDefault', updatedAt: false },
  );
  class LabSetting extends LabSettingRow {}
  LabSetting.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      key: { type: DataTypes.STRING(60), allowNull: false },
      value: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'lab_settings', modelName: 'LabSetting', updatedAt: false },
  );
  return {
    Machine,
    Variant,
    Unit,
    MachineTag,
    Revision,
    Attachment,
    OpenUpLog,
    LabDefault,
    LabSetting,
  };
}
