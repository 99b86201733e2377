import { DOCUMENT_BOUNDS, jsonFault, MAX_DOCUMENT_BYTES } from '@zugluft/core/exchange/jsonFault';
import express, { type RequestHandler } from 'express';
import { Problem } from './problem';

/** A document of the largest size, and what stands round it. */
const MAX_BODY = MAX_DOCUMENT_BYTES + 64 * 1024;
const BODY_BOUNDS = { depth: DOCUMENT_BOUNDS.depth + 2, values: 2 * DOCUMENT_BOUNDS.values };

const bad = (detail: string) => new Problem(400, 'Bad request', detail);

/** No text that is kept holds U+0000, which many programs take for its end; so none asks for it either. */
export const refuseNul: RequestHandler = (req, _res, next) => {
  if (/%00/i.test(req.url)) throw bad('the address holds U+0000, which no text may');
  next();
};

const parseJson: RequestHandler = (req, _res, next) => {
  const text: unknown = req.body;
  if (typeof text !== 'string') {
    next();
    return;
  }
  if (text === '') req.body = {};
  else {
    if (!/^\s*[[{]/.test(text)) throw new Problem(400, 'Not JSON', 'the body is no JSON object');
    const fault = jsonFault(text, BODY_BOUNDS);
    if (fault) throw bad(`the body ${fault}`);
    try {
      req.body = JSON.parse(text) as unknown;
    } catch {
      throw new Problem(400, 'Not JSON', 'the body is not well-formed JSON');
    }
  }
  next();
};

/** Reads a JSON body within the bounds that hold at every door, before any value of it is made. */
export const readBody: RequestHandler[] = [
  express.text({ type: ['application/json', 'application/*+json'], limit: MAX_BODY }),
  parseJson,
];
