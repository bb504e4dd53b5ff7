/** While a station is made ready. */
export default function StationLoading() {
  return (
    <p role="status" className="m-auto text-base text-soft">
      Laying it out …
    </p>
  );
}
