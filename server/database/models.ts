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
  /** What the names are compared by. */
  declare makerKey: CreationOptional<string>;
  declare modelKey: CreationOptional<string>;
  declare variantKey: CreationOptional<string>;
  declare searchText: string;
  declare fans: number;
  declare pipes: number;
  declare stacks: number;
  declare thicknessMm: number | null;
  declare massKg: number | null;
  declare chamber: boolean;
  declare finAreaCm2: number | null;
  declare pipeSectionMm2: number | null;
  declare describedBy: number;
  /** Watts of both dies together by cap, as JSON, and what they were computed by. */
  declare watts: CreationOptional<string>;
  declare wattsBy: CreationOptional<string>;
  /** Version of the calibration that its estimate stands on. */
  declare calibration: CreationOptional<number | null>;
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
  declare focalPx: CreationOptional<number | null>;
  declare caption: string;
  declare covers: string;
  declare exported: boolean;
  declare looked: boolean;
  declare putAsideAt: Date | null;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** A run on the bench, by which it is listed. */
export class LogLayoutRow extends Model<
  InferAttributes<LogLayoutRow>,
  InferCreationAttributes<LogLayoutRow>
> {
  declare key: string;
  declare header: string;
  /** JSON: what was said of such logs. */
  declare layout: string;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class RunRow extends Model<InferAttributes<RunRow>, InferCreationAttributes<RunRow>> {
  declare id: string;
  declare machineId: string;
  declare revision: number;
  /** JSON: what was foretold before the run; null where nothing was. */
  declare prediction: string | null;
  declare putAsideAt: Date | null;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** One version of what runs taught of a machine. */
export class CalibrationRow extends Model<
  InferAttributes<CalibrationRow>,
  InferCreationAttributes<CalibrationRow>
> {
  declare id: string;
  declare machineId: string;
  declare version: number;
  declare recordRevision: number;
  declare inUse: boolean;
  /** JSON: what became of each run. */
  declare runs: string;
  /** JSON: what people read. */
  declare answer: string;
  /** JSON: paths and values at the fit. */
  declare figures: string;
  /** Sets of values that are possible after it, doubles one set after the other. */
  declare rows: Buffer;
  declare createdAt: CreationOptional<Date>;
}

/** A report as it was published; written once. */
export class EditionRow extends Model<
  InferAttributes<EditionRow>,
  InferCreationAttributes<EditionRow>
> {
  declare id: string;
  declare machineId: string;
  declare number: number;
  declare recordRevision: number;
  /** JSON: what it says. */
  declare source: string;
  /** JSON: names and sizes of what lies in its zip. */
  declare files: string;
  declare sha256: string;
  declare bytes: number;
  declare createdAt: CreationOptional<Date>;
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

/** A kept document: where it stands now. */
export class DocumentRow extends Model<
  InferAttributes<DocumentRow>,
  InferCreationAttributes<DocumentRow>
> {
  declare kind: string;
  declare id: string;
  declare revision: number;
  declare putAsideAt: Date | null;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** A document as it was at one revision. */
export class DocumentRevisionRow extends Model<
  InferAttributes<DocumentRevisionRow>,
  InferCreationAttributes<DocumentRevisionRow>
> {
  declare key: CreationOptional<number>;
  declare kind: string;
  declare id: string;
  declare revision: number;
  declare value: string;
  declare name: string | null;
  declare putAside: boolean;
  declare note: string;
  declare writeId: string | null;
  declare writtenBy: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

/** The models of one open database; classes are made anew for each, so that several can be open at once. */
export interface Models {
  Machine: typeof MachineRow;
  Variant: typeof VariantRow;
  Unit: typeof UnitRow;
  MachineTag: typeof MachineTagRow;
  Attachment: typeof AttachmentRow;
  Run: typeof RunRow;
  LogLayout: typeof LogLayoutRow;
  Calibration: typeof CalibrationRow;
  Edition: typeof EditionRow;
  Document: typeof DocumentRow;
  DocumentRevision: typeof DocumentRevisionRow;
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
      makerKey: { type: DataTypes.STRING, allowNull: false, defaultValue: '' },
      modelKey: { type: DataTypes.STRING, allowNull: false, defaultValue: '' },
      variantKey: { type: DataTypes.STRING, allowNull: false, defaultValue: '' },
      searchText: { type: DataTypes.TEXT, allowNull: false },
      fans: { type: DataTypes.INTEGER, allowNull: false },
      pipes: { type: DataTypes.INTEGER, allowNull: false },
      stacks: { type: DataTypes.INTEGER, allowNull: false },
      thicknessMm: { type: DataTypes.FLOAT, allowNull: true },
      massKg: { type: DataTypes.FLOAT, allowNull: true },
      chamber: { type: DataTypes.BOOLEAN, allowNull: false },
      finAreaCm2: { type: DataTypes.FLOAT, allowNull: true },
      pipeSectionMm2: { type: DataTypes.FLOAT, allowNull: true },
      describedBy: { type: DataTypes.INTEGER, allowNull: false },
      watts: { type: DataTypes.TEXT, allowNull: false, defaultValue: '{}' },
      wattsBy: { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' },
      calibration: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
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
      focalPx: { type: DataTypes.FLOAT, allowNull: true },
      caption: { type: DataTypes.STRING(500), allowNull: false },
      covers: { type: DataTypes.TEXT, allowNull: false },
      exported: { type: DataTypes.BOOLEAN, allowNull: false },
      looked: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'attachments', modelName: 'Attachment' },
  );
  class Run extends RunRow {}
  Run.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      prediction: { type: DataTypes.TEXT, allowNull: true },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'runs', modelName: 'Run' },
  );
  class LogLayout extends LogLayoutRow {}
  LogLayout.init(
    {
      key: { type: DataTypes.STRING(64), primaryKey: true },
      header: { type: DataTypes.TEXT, allowNull: false },
      layout: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'log_layouts', modelName: 'LogLayout' },
  );
  class Calibration extends CalibrationRow {}
  Calibration.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      version: { type: DataTypes.INTEGER, allowNull: false },
      recordRevision: { type: DataTypes.INTEGER, allowNull: false },
      inUse: { type: DataTypes.BOOLEAN, allowNull: false },
      runs: { type: DataTypes.TEXT, allowNull: false },
      answer: { type: DataTypes.TEXT, allowNull: false },
      figures: { type: DataTypes.TEXT, allowNull: false },
      rows: { type: DataTypes.BLOB, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'calibrations', modelName: 'Calibration', updatedAt: false },
  );
  class Edition extends EditionRow {}
  Edition.init(
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: { type: DataTypes.STRING(36), allowNull: false },
      number: { type: DataTypes.INTEGER, allowNull: false },
      recordRevision: { type: DataTypes.INTEGER, allowNull: false },
      source: { type: DataTypes.TEXT, allowNull: false },
      files: { type: DataTypes.TEXT, allowNull: false },
      sha256: { type: DataTypes.STRING(64), allowNull: false },
      bytes: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'editions', modelName: 'Edition', updatedAt: false },
  );
  class Document extends DocumentRow {}
  Document.init(
    {
      kind: { type: DataTypes.STRING(30), primaryKey: true },
      id: { type: DataTypes.STRING(60), primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { sequelize, tableName: 'documents', modelName: 'Document' },
  );
  class DocumentRevision extends DocumentRevisionRow {}
  DocumentRevision.init(
    {
      key: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      kind: { type: DataTypes.STRING(30), allowNull: false },
      id: { type: DataTypes.STRING(60), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      value: { type: DataTypes.TEXT, allowNull: false },
      name: { type: DataTypes.STRING(80), allowNull: true },
      putAside: { type: DataTypes.BOOLEAN, allowNull: false },
      note: { type: DataTypes.STRING(200), allowNull: false },
      writeId: { type: DataTypes.STRING(60), allowNull: true },
      writtenBy: { type: DataTypes.STRING(60), allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    {
      sequelize,
      tableName: 'document_revisions',
      modelName: 'DocumentRevision',
      updatedAt: false,
    },
  );
  return {
    Machine,
    Variant,
    Unit,
    MachineTag,
    Attachment,
    Run,
    LogLayout,
    Calibration,
    Edition,
    Document,
    DocumentRevision,
  };
}
