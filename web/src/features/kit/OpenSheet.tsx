import type { Kit, KitState } from "../../domain/types";
import { Beside } from "./Beside";
import { CameraFields } from "./CameraFields";
import { ModeSheet } from "./ModeSheet";
import { NewCamera } from "./NewCamera";
import { markOf, type Opened } from "./opened";
import { Serving } from "./Serving";
import { UnitSheet } from "./UnitSheet";

interface Props {
  kit: Kit;
  opened: Opened | null;
  uses: KitState["uses"];
  editKit: (change: (old: Kit) => Kit) => void;
  onOpen: (opened: Opened | null) => void;
  onClose: () => void;
}

/** What is opened of the kit, beside its drawing; nothing while nothing is. */
export function OpenSheet({ kit, opened, uses, editKit, onOpen, onClose }: Props) {
  if (opened === null) return null;
  switch (opened.kind) {
    case "new":
      return <NewCamera kit={kit} editKit={editKit} onClose={onClose} />;
    case "serving":
      return (
        <Beside mark={markOf(opened)} title="What serves where" wide onClose={onClose}>
          <Serving kit={kit} editKit={editKit} />
        </Beside>
      );
    case "camera": {
      const camera = kit.cameras.find((one) => one.id === opened.id);
      return camera === undefined ? null : (
        <Beside mark={markOf(opened)} title={camera.name} wide onClose={onClose}>
          <CameraFields {...{ kit, camera, uses, editKit }} choose={onOpen} />
        </Beside>
      );
    }
    case "mode": {
      const camera = kit.cameras.find((one) => one.id === opened.camera);
      const mode = camera?.modes.find((one) => one.id === opened.id);
      return camera === undefined || mode === undefined ? null : (
        <ModeSheet {...{ kit, camera, mode, uses, editKit, onOpen }} />
      );
    }
    default:
      return (
        <UnitSheet
          key={markOf(opened)}
          kit={kit}
          opened={opened}
          editKit={editKit}
          onClose={onClose}
        />
      );
  }
}
