import { Link } from 'react-router';
import { CAUTIONS } from '@zugluft/core/service/cautions';
import { NO_RULE_NEEDED, RULES, type HouseRules } from '@zugluft/core/service/houseRules';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { SavedWords } from '../../documents/SavedWords';
import { useLabSettings } from '../../documents/useLaboratory';
import { Noticed } from './Noticed';
import { Backup } from './Backup';
import { Felt } from './Felt';
import { NoiseCaps } from './NoiseCaps';
import { Sessions } from './Sessions';
import { PartPoints } from './PartPoints';
import { PageFrame } from '../../kit/PageFrame';

/** Where workshops differ, and what this one does: the steps, tools, cautions and the way back follow. */
export function HouseRulesPage() {
  const { settings, save, state, keeper, ready, error } = useLabSettings();
  const rules = settings['house-rules'];
  return (
    <PageFrame crumbs={['House rules']}>
      <main className="p-4 max-w-[62rem]">
        <h1 className="text-lg font-semibold">
          House rules{' '}
          <span
            className="text-small font-normal text-quiet"
            role="status"
            data-testid="rules-saving"
          >
            {state?.kind === 'saved' ? 'kept' : state && <SavedWords view={keeper!.view()} />}
          </span>
        </h1>
        <p className="text-[0.9rem] mb-3">
          <Link to="/laboratory/history/settings" className="underline underline-offset-2">
            History of what this laboratory decided
          </Link>
        </p>
        <NoiseCaps caps={settings.caps} ready={ready} save={(caps) => save('caps', caps)} />
        <Noticed
          value={settings.noticeable}
          ready={ready}
          save={(noticed) => save('noticeable', noticed)}
        />
        <PartPoints
          value={settings.points}
          ready={ready}
          save={(points) => save('points', points)}
        />
        <Backup />
        <Sessions />
        <Felt value={settings.felt} ready={ready} save={(felt) => save('felt', felt)} />
        <p className="text-quiet mb-4">
          Schools differ. What is chosen here stands at each step where it matters, in every log;
          the usual steps and the way back follow it.
        </p>
        {error && (
          <p className="text-heat mb-2" role="alert">
            The laboratory’s settings could not be read: {error.message}.
          </p>
        )}
        {state?.kind === 'conflict' && (
          <ConflictPanel kind="settings" conflicts={state.conflicts} choose={keeper!.choose} />
        )}
        <dl>
          {RULES.map((r) => {
            const chosen = r.choices.find((c) => c.id === rules[r.id]) ?? r.choices[0];
            const caution = 'caution' in chosen ? CAUTIONS[chosen.caution] : null;
            return (
              <div
                key={r.id}
                className="grid sm:grid-cols-[16rem_minmax(0,1fr)] gap-x-6 border-b border-rule py-2"
              >
                <dt className="font-semibold pt-0.5">{r.question}</dt>
                <dd>
                  <div role="radiogroup" aria-label={r.question} className="flex flex-wrap gap-x-5">
                    {r.choices.map((c) => (
                      <label key={c.id} className="flex items-center gap-1.5 cursor-pointer">
                        <input
                          type="radio"
                          className="radio radio-xs"
                          name={r.id}
                          disabled={!ready}
                          checked={c.id === chosen.id}
                          onChange={() =>
                            save('house-rules', { ...rules, [r.id]: c.id } as HouseRules)
                          }
                        />
                        {c.name}
                      </label>
                    ))}
                  </div>
                  <p className="text-[0.9rem] text-quiet min-h-5">
                    {chosen.words}
                    {caution && <span className="block">{caution}</span>}
                  </p>
                </dd>
              </div>
            );
          })}
          {NO_RULE_NEEDED.map(([question, words]) => (
            <div
              key={question}
              className="grid sm:grid-cols-[16rem_minmax(0,1fr)] gap-x-6 border-b border-rule py-2"
            >
              <dt className="font-semibold">{question}</dt>
              <dd className="text-quiet">no rule needed: {words}</dd>
            </div>
          ))}
        </dl>
      </main>
    </PageFrame>
  );
}
