import { copyName, withModePart, withoutUnit, withUnit } from "../../domain/kitEdits";
import { useTellGone } from "../../app/gone";
import { freshKey } from "../../domain/edits";
import { staysText } from "../../domain/gone";
import type { Camera, Kit, KitState, Mode } from "../../domain/types";
import { Beside } from "./Beside";
import { ModeFields } from "./ModeFields";
import { markOf, type Opened } from "./opened";

interface Props {
  kit: Kit;
  camera: Camera;
  mode: Mode;
  uses: KitState["uses"];
  editKit: (change: (old: Kit) => Kit) => void;
  onOpen: (opened: Opened | null) => void;
}

const MOST_MODES = 40;

/** The five fields of a mode beside its cord, which moves as they are typed. */
export function ModeSheet({ kit, camera, mode, uses, editKit, onOpen }: Props) {
  const tellGone = useTellGone();
  const opened: Opened = { kind: "mode", camera: camera.id, id: mode.id };
  const put = (modes: Mode[]) =>
    editKit((old) => ({ ...old, cameras: withUnit(old.cameras, { ...camera, modes }) }));
  const trips =
    uses.find((one) => one.kind === "mode" && one.unit === `${camera.id}/${mode.id}`)?.trips ?? [];
  const path = `kit.cameras[${String(kit.cameras.indexOf(camera))}].modes[${String(camera.modes.indexOf(mode))}]`;
  const taken = camera.modes;
  const copy = () => {
    const name = copyName(
      mode.name,
      taken.map((one) => one.name),
    );
    const id = freshKey(
      name,
      taken.map((one) => one.id),
    );
    put([...taken, { ...mode, id, name }]);
    onOpen({ kind: "mode", camera: camera.id, id });
  };
  const remove = () => {
    onOpen(null);
    put(withoutUnit(taken, mode.id));
    tellGone(`Mode ${mode.name} of ${camera.name}`, staysText("mode", trips));
  };
  return (
    <Beside
      mark={markOf(opened)}
      title={`${camera.name}, ${mode.name}`}
      onClose={() => onOpen(null)}
    >
      <div className="beside-fields" role="group" aria-label={`mode ${mode.name}`}>
        <ModeFields
          mode={mode}
          path={path}
          putMode={(some) => put(withUnit(taken, withModePart(mode, some)))}
        />
        <p className="hint">
          {mode.rise_k == null
            ? "How it warms is assumed: run it on the bench."
            : "How it warms is measured or typed."}
        </p>
        <p className="row">
          <button
            type="button"
            className="plain link"
            disabled={taken.length >= MOST_MODES}
            onClick={copy}
            aria-label={`Copy mode ${mode.name}`}
          >
            Copy
          </button>
          <button
            type="button"
            className="plain link"
            disabled={taken.length === 1}
            onClick={remove}
            aria-label={`Delete mode ${mode.name}`}
          >
            Delete
          </button>
        </p>
      </div>
    </Beside>
  );
}
