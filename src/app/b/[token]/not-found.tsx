import { NothingHere } from '@/ui/screening/nothing-here';

export default function NoFilms() {
  return (
    <NothingHere
      title="There are no films here"
      words="The link may not be whole, or the page is no longer shown. Ask whoever sent it to you."
    />
  );
}
