import { editLayer, removeLayer } from '@zugluft/core/service/logEdits';
import type { OpenUpLog } from '../../api/openUp';
import { NumberCell, SelectCell, TextCell } from './cells';
import type { ChangeLog } from './OpenUpLog';

/** Name, outline and side of the layer that is shown. */
export function LayerDetails({
  log,
  layer,
  change,
}: {
  log: OpenUpLog;
  layer: OpenUpLog['layers'][number];
  change: ChangeLog;
}) {
  const edit = (to: Partial<typeof layer>) => change((l) => editLayer(l, layer.id, to));
  const holes = log.screws.filter((s) => s.layer === layer.id).length;
  return (
    <details className="text-[0.9rem]">
      <summary className="cursor-pointer text-quiet">
        {layer.name}, seen from {layer.seenFrom}
        {layer.seenFrom === 'below' && ': the user’s left is on the right here'}
      </summary>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <TextCell
          label="name of this layer"
          value={layer.name}
          required
          className="w-36"
          set={(name) => name && edit({ name })}
        />
        <NumberCell
          label="width of this layer"
          value={layer.widthMm}
          min={10}
          max={800}
          unit="mm wide"
          set={(widthMm) => edit({ widthMm })}
        />
        <NumberCell
          label="depth of this layer"
          value={layer.depthMm}
          min={10}
          max={800}
          unit="mm deep"
          set={(depthMm) => edit({ depthMm })}
        />
        <SelectCell
          label="seen from"
          value={layer.seenFrom}
          options={{ below: 'seen from below', above: 'seen from above' }}
          set={(seenFrom) => seenFrom && edit({ seenFrom: seenFrom as typeof layer.seenFrom })}
        />
        {log.layers.length > 1 && (
          <button
            type="button"
            className="underline underline-offset-2 cursor-pointer text-quiet hover:text-ink disabled:no-underline disabled:cursor-default"
            disabled={holes > 0}
            title={holes ? 'a layer with holes on it stays' : undefined}
            onClick={() => change((l) => removeLayer(l, layer.id))}
          >
            remove this layer
          </button>
        )}
      </div>
    </details>
  );
}
