import { heldBySetting } from './heldBySetting';

const power = (part: string) => ({ kind: 'throttle-power', part });
const junction = (part: string) => ({ kind: 'throttle-junction', part });

test('the setting ruled where every die that was held was held by its power last', () => {
  expect(heldBySetting([power('cpu'), power('gpu')])).toBe(true);
  expect(heldBySetting([power('cpu'), junction('gpu')])).toBe(false);
  expect(heldBySetting([junction('cpu'), power('cpu')])).toBe(true);
  expect(heldBySetting([power('cpu'), junction('cpu')])).toBe(false);
  expect(heldBySetting([{ kind: 'fans', part: 'fan' }])).toBe(false);
});
