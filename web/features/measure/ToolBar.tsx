import { MARK_KINDS } from '@zugluft/core/photo/marksFile';
import { Kbd } from '../../kit/Kbd';
import { MARK_KEYS, MARK_WORDS, type Tool } from './marking';

const KEY_OF = Object.fromEntries(Object.entries(MARK_KEYS).map(([key, kind]) => [kind, key]));

/** What can be marked, each with its key. */
export function ToolBar({ tool, take }: { tool: Tool | null; take: (tool: Tool) => void }) {
  return (
    <div role="toolbar" aria-label="marks" className="flex flex-wrap gap-x-0.5 gap-y-1">
      {MARK_KINDS.map((kind) => (
        <button
          key={kind}
          type="button"
          className={`btn btn-sm px-2 ${tool?.as === 'mark' && tool.kind === kind ? 'btn-primary' : 'btn-ghost'}`}
          aria-pressed={tool?.as === 'mark' && tool.kind === kind}
          title={MARK_WORDS[kind].ask}
          onClick={() => take({ as: 'mark', kind })}
        >
          {MARK_WORDS[kind].name} <Kbd>{KEY_OF[kind]!}</Kbd>
        </button>
      ))}
    </div>
  );
}
