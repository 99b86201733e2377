import {
  addConnector,
  addPart,
  addStripTo,
  connectorInStep,
  editConnector,
  editPart,
  editStrip,
  removeConnector,
  removePart,
  removeStrip,
} from './ledgerEdits';
import { addStep } from './logEdits';
import { EMPTY_LOG, openUpLog } from './openUpLog';

test('a removed part comes with nothing and excludes nothing; ids are never given twice', () => {
  let log = addPart(addPart(addPart(EMPTY_LOG)));
  log = editPart(log, 'part1', {
    onlyWith: ['part2', 'part3'],
    upgrades: [{ bound: 'second bay', evidence: 'tried', excludes: ['part2'] }],
  });
  log = removePart(log, 'part2');
  expect(log.parts[0]).toMatchObject({ onlyWith: ['part3'], upgrades: [{ excludes: [] }] });
  log = addPart(log);
  expect(new Set(log.parts.map((p) => p.id)).size).toBe(3);
  expect(openUpLog.safeParse(log).success).toBe(true);
});

test('a connector belongs to one step at a time, and leaves it when it is removed', () => {
  let log = addStep(addStep(EMPTY_LOG, 'Cover'), 'Battery');
  log = editConnector(addConnector(log), 'plug1', { release: 'pull-tab', labelled: true });
  log = connectorInStep(log, 'plug1', 'step1');
  log = connectorInStep(log, 'plug1', 'step2');
  expect(log.steps.map((s) => s.connectors)).toEqual([[], ['plug1']]);
  expect(connectorInStep(log, 'plug1', undefined).steps[1]!.connectors).toEqual([]);
  expect(removeConnector(log, 'plug1').steps[1]!.connectors).toEqual([]);
});

test('strips are written down before they are known', () => {
  let log = addStripTo(EMPTY_LOG);
  expect(log.strips[0]).toMatchObject({ purpose: 'unknown', off: false });
  log = editStrip(log, 'strip1', { purpose: 'duct-seal', off: true });
  expect(openUpLog.safeParse(log).success).toBe(true);
  expect(removeStrip(log, 'strip1').strips).toEqual([]);
});
