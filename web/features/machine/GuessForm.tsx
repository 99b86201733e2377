import { useState, type FormEvent } from 'react';
import { guessedBy, guessedWatts, reviewerName } from '@zugluft/core/opinion/guesses';
import { atCap, middleCap } from '../../documents/answer/caps';
import { MOST_WANTED_W, wattsWanted } from '../../documents/answer/wattsWanted';
import { keepReviewer, lastReviewer } from '../../documents/opinion/reviewer';
import { useAddGuess, useGuesses } from '../../documents/opinion/useGuesses';
import { useMachineFile } from '../../documents/record/MachineFile';

/** Asks for a guess before the answer is uncovered, as the house wishes. */
export function GuessForm({ uncover }: { uncover: () => void }) {
  const { machine, caps, live } = useMachineFile();
  const cap = middleCap(caps);
  const { data } = useGuesses(machine.id, true);
  const add = useAddGuess(machine.id);
  const [by, setBy] = useState(lastReviewer);
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<{ by?: string; watts?: string; rest?: string }>({});
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const name = reviewerName.safeParse(by);
    const watts = guessedWatts.safeParse(wattsWanted(text) ?? NaN);
    const problems = {
      ...(name.success
        ? data && guessedBy(data, name.data)
          ? { by: 'has guessed already' }
          : {}
        : { by: by.trim() === '' ? 'is missing: say who guesses' : name.error.issues[0]!.message }),
      ...(watts.success
        ? {}
        : {
            watts: `needs watts above 0 and below ${MOST_WANTED_W.toLocaleString('en')}`,
          }),
    };
    setWrong(problems);
    if (!name.success || !watts.success || Object.keys(problems).length > 0) return;
    keepReviewer(name.data);
    add(name.data, cap, watts.data).catch((cause: Error) => setWrong({ rest: cause.message }));
  };
  const already = [...new Set(data?.guesses.map((g) => g.by))];
  return (
    <form aria-label="guess" onSubmit={submit} className="text-[0.95rem]">
      <h2 className="text-base font-semibold">Before the answer</h2>
      <p className="text-quiet mb-2">
        {live.estimate
          ? `How many watts does it hold ${atCap(cap)}, by your feel?`
          : `Once it can be computed: how many watts does it hold ${atCap(cap)}, by your feel?`}
      </p>
      <div className="flex flex-wrap gap-x-4 gap-y-2 items-start">
        <label className="flex items-baseline gap-1.5">
          <input
            className={`figure input input-sm w-20 text-right ${wrong.watts ? 'border-heat text-heat' : ''}`}
            aria-label="your guess, watts"
            aria-invalid={wrong.watts ? true : undefined}
            inputMode="decimal"
            autoComplete="off"
            maxLength={20}
            value={text}
            onChange={(e) => {
              setText(e.currentTarget.value);
              setWrong(({ watts: _, ...rest }) => rest);
            }}
          />
          <span className="unit">W</span>
        </label>
        <label className="flex items-baseline gap-1.5">
          <span className="text-quiet">by</span>
          <input
            className={`input input-sm w-36 ${wrong.by ? 'border-heat text-heat' : ''}`}
            aria-label="who guesses"
            aria-invalid={wrong.by ? true : undefined}
            autoComplete="name"
            maxLength={60}
            value={by}
            onChange={(e) => {
              setBy(e.currentTarget.value);
              setWrong(({ by: _, ...rest }) => rest);
            }}
          />
        </label>
        <button type="submit" className="btn btn-sm btn-primary">
          Uncover
        </button>
      </div>
      {Object.keys(wrong).length > 0 && (
        <p role="alert" className="text-heat text-small mt-1">
          {[
            wrong.watts && `the guess ${wrong.watts}`,
            wrong.by && `the name ${wrong.by}`,
            wrong.rest && `it could not be kept: ${wrong.rest}`,
          ]
            .filter(Boolean)
            .join('; ')}
        </p>
      )}
      <p className="text-small text-quiet mt-2">
        {already.length > 0 && `${already.join(', ')} guessed before. `}
        It is kept with the machine and held against what is computed and measured.
      </p>
      <button
        type="button"
        className="underline underline-offset-2 text-small cursor-pointer py-1"
        onClick={uncover}
      >
        uncover without a guess
      </button>
    </form>
  );
}
