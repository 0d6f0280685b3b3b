/** Whether a field of a form is refused as it stands: it takes the focus, and nothing is sent. */
export function isRefused(form: HTMLFormElement): boolean {
  const wrong = form.querySelector<HTMLElement>("[aria-invalid=true]");
  wrong?.focus();
  return wrong !== null;
}
