import { useNavigate } from "react-router";
import { findingPlace } from "../../domain/moment";
import type { CureTarget, Finding } from "../../domain/types";
import { countText } from "../../domain/units";
import type { CuresFor, TroubleProps } from "./Trouble";

interface Props extends TroubleProps {
  cures: CuresFor;
}

const SEVERITIES = ["stop", "warn", "note"] as const;
const SEVERITY = { stop: "Stop", warn: "Mind", note: "Note" };
const WHERE = { kit: "to the kit", route: "to the route", board: "show it" };

/** Findings folded to one line by severity; the same thing on several legs is one. */
export function Findings(props: Props) {
  const { findings } = props.rehearsal;
  return (
    <section aria-label="To know">
      {SEVERITIES.map((severity) => {
        const some = findings.filter((one) => one.severity === severity);
        if (some.length === 0) return null;
        return (
          <details key={severity} className="side-more" open={severity === "stop"}>
            <summary className={severity}>{foldText(severity, some.length)}</summary>
            <ul className="side-list">
              {alike(some).map((group) => (
                <Group
                  key={(group[0]?.code ?? "") + (group[0]?.path ?? "")}
                  {...props}
                  group={group}
                />
              ))}
            </ul>
          </details>
        );
      })}
    </section>
  );
}

function foldText(severity: Finding["severity"], count: number): string {
  if (severity === "stop") return countText(count, "thing stops this", "things stop this");
  return severity === "warn" ? `${String(count)} to mind` : countText(count, "note");
}

/** Findings of one kind and camera, together. */
function alike(findings: readonly Finding[]): Finding[][] {
  const groups = new Map<string, Finding[]>();
  for (const one of findings) {
    const key = `${one.code} ${one.camera ?? ""}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()];
}

function Group(props: Props & { group: readonly Finding[] }) {
  const { group } = props;
  const [first, ...rest] = group;
  if (first === undefined) return null;
  const items = new Set(group.map((one) => one.item));
  return (
    <li>
      <Row {...props} finding={first} />
      {rest.length === 0 ? null : (
        <details className="side-alike">
          <summary>
            {items.size === group.length && first.item != null
              ? `the same on ${countText(rest.length, "more leg or stop", "more legs and stops")}`
              : `${String(rest.length)} more like it`}
          </summary>
          <ul className="side-list">
            {rest.map((one) => (
              <li key={one.path + one.text}>
                <Row {...props} finding={one} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}

function Row({
  rehearsal,
  goTo,
  openCamera,
  openPlan,
  cures,
  finding,
}: Props & { finding: Finding }) {
  const navigate = useNavigate();
  const place = findingPlace(finding.path);
  const lead = () => {
    const laid = rehearsal.items.find((one) => one.id === finding.item);
    if (place !== "board") void navigate(`../${place}?at=${encodeURIComponent(finding.path)}`);
    else if (finding.camera != null && laid)
      goTo({ camera: finding.camera, item: laid.id }, laid.start_ms);
    else if (finding.camera != null) openCamera(finding.camera);
    else openPlan();
  };
  return (
    <>
      <button type="button" className="plain side-row" onClick={lead}>
        <span className="label">
          <b className={`severity ${finding.severity}`}>{SEVERITY[finding.severity]}</b>{" "}
          {finding.text} <span className="leads">{WHERE[place]}</span>
        </span>
      </button>
      {finding.curable ? cures(targetOf(finding), finding.text) : null}
    </>
  );
}

function targetOf({ code, camera, item, path }: Finding): CureTarget {
  return { code, camera: camera ?? null, item: item ?? null, path };
}
