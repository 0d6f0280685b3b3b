import { NumberIn } from "../../ui/fields";

interface CostProps {
  cost: number | null | undefined;
  onCost: (cost: number | null) => void;
}

/** What one of it costs, in a currency of one's own; left empty where nobody counts it. */
export function CostIn({ cost, onCost }: CostProps) {
  return (
    <NumberIn
      label="Price"
      unit="in your money"
      value={cost}
      min={0}
      max={1_000_000}
      onCommit={onCost}
      onClear={() => onCost(null)}
    />
  );
}

interface CarriedProps extends CostProps {
  mass_g: number;
  onMass: (mass_g: number) => void;
}

/** What it weighs and costs: variants compare by both. */
export function CarriedIn({ mass_g, onMass, cost, onCost }: CarriedProps) {
  return (
    <>
      <NumberIn label="Mass" unit="g" value={mass_g} min={0} max={10_000} onCommit={onMass} />
      <CostIn cost={cost} onCost={onCost} />
    </>
  );
}
