// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useRef } from "react";
import { expect, it } from "vitest";
import { useRoving } from "./useRoving";

function List({ names }: { names: readonly string[] }) {
  const list = useRef<HTMLDivElement>(null);
  const roving = useRoving(list, "button.row");
  return (
    <>
      <div ref={list} role="presentation" {...roving}>
        {names.map((name) => (
          <button key={name} type="button" className="row">
            {name}
          </button>
        ))}
      </div>
      <button type="button">after</button>
    </>
  );
}

const focused = () => document.activeElement?.textContent;

it("a list is one stop of Tab, walked by arrows and come back to", async () => {
  const { rerender } = render(<List names={["one", "two", "three"]} />);
  await userEvent.tab();
  expect(focused()).toBe("one");
  await userEvent.keyboard("{ArrowDown}{ArrowDown}{ArrowDown}");
  expect(focused()).toBe("three");
  await userEvent.keyboard("{ArrowUp}");
  await userEvent.tab();
  expect(focused()).toBe("after");
  await userEvent.tab({ shift: true });
  expect(focused()).toBe("two");
  await userEvent.keyboard("{Home}");
  expect(focused()).toBe("one");
  rerender(<List names={["three"]} />);
  screen.getByText("after").focus();
  await userEvent.tab({ shift: true });
  expect(focused()).toBe("three");
});
