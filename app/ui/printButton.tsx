/** Prints the page. */
export function PrintButton() {
  return (
    <button type="button" className="button button-main" onClick={() => window.print()}>
      Print
    </button>
  );
}
