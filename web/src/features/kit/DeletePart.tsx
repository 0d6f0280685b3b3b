import { Button, Dialog } from "@mui/material";
import type { Going } from "./Parts";

/** Asks before a part of a camera goes, and says what goes with it. */
export function DeletePart({ going, onDone }: { going: Going | null; onDone: () => void }) {
  return (
    <Dialog open={going !== null} onClose={onDone} aria-labelledby="delete-part">
      <div className="sheet">
        <h2 id="delete-part">Delete {going?.what}?</h2>
        <p>{going?.more}</p>
        <div className="row">
          <Button
            variant="contained"
            color="error"
            onClick={() => {
              going?.run();
              onDone();
            }}
          >
            Delete {going?.what}
          </Button>
          <Button onClick={onDone}>Keep it</Button>
        </div>
      </div>
    </Dialog>
  );
}
