import type { KindName, ValueOf } from '@zugluft/core/documents/kinds';
import type { Transaction } from 'sequelize';

/** A document as it stands. */
export interface KeptDocument<T> {
  kind: KindName;
  id: string;
  /** 0 where nothing was written yet. */
  revision: number;
  value: T;
  /** Of a machine's state; null for kinds whose documents have no name apart from their value. */
  name: string | null;
  putAsideAt: Date | null;
  createdAt: Date | null;
  updatedAt: Date | null;
}

/** What documents with values of a type need of the server besides being kept: the rows by which they are listed, their address. */
export interface ShelfOf<T> {
  /** Throws where there is nothing a document of this id could belong to. */
  owner(id: string, transaction?: Transaction): Promise<void>;
  /** Makes what a document of this id would belong to, with its first revision, where somebody writes to what is not there yet. */
  begin?(
    id: string,
    value: T,
    about: { note?: string | undefined; writeId?: string | undefined },
    transaction: Transaction,
  ): Promise<KeptDocument<T>>;
  /** Writes the rows by which it is listed, in the same transaction. */
  listed?(
    now: KeptDocument<T>,
    before: KeptDocument<T> | null,
    transaction: Transaction,
  ): Promise<void>;
  /** What follows for other documents where somebody changed the value, in the same transaction. */
  changed?(now: KeptDocument<T>, before: KeptDocument<T>, transaction: Transaction): Promise<void>;
  /** Told once a write is kept. */
  kept?(): void;
  /** Refuses what the kind alone cannot see, such as a box over a paper. */
  refuse?(now: KeptDocument<T>, value: T, transaction: Transaction): Promise<void>;
  /** What stands there in the shape of the kind's own address. */
  answer(now: KeptDocument<T>, transaction?: Transaction): Promise<unknown>;
  /** May be put aside and brought back. */
  aside: boolean;
}

export type Shelf<K extends KindName> = ShelfOf<ValueOf<K>> & { kind: K };
