/** Without a secure connection a browser gives no camera, no storage for offline and no keys: said plainly. */
export function InsecureNote() {
  if (window.isSecureContext) return null;
  return (
    <p role="alert" className="border-error border-b-4 px-4 py-2">
      <b>This address is not secure.</b> The live camera and working without a network need the https address
      of this Lauta; ask the director for it. Files of the phone’s own camera can be claimed all the same.
    </p>
  );
}
