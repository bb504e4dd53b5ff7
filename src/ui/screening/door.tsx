interface DoorProps {
  readonly token: string;
  readonly again: 'wrong' | 'later' | null;
}

/** Where a screening’s password is said; a plain form, so that it works without scripts. */
export function Door({ token, again }: DoorProps) {
  return (
    <form
      method="post"
      action={`/api/v1/screenings/${token}/entry`}
      className="m-auto flex w-full max-w-sm flex-col gap-3 px-5 py-10"
      data-part="door"
    >
      <h1 className="font-(family-name:--titles) text-xl">A private screening</h1>
      <p className="text-base text-(--soft)">Type the password that came with the link.</p>
      <label className="mt-3 flex flex-col gap-1.5">
        Password
        <input
          type="password"
          name="password"
          required
          maxLength={200}
          autoComplete="current-password"
          aria-describedby={again ? 'again' : undefined}
          aria-invalid={again === 'wrong'}
          className="h-11 rounded-md border border-(--soft) bg-transparent px-3 text-base"
        />
      </label>
      {again && (
        <p id="again" role="alert" className="text-base" data-part="again">
          {again === 'wrong'
            ? 'That is not the password. Capital letters count.'
            : 'That was tried too often. Wait ten minutes and try again.'}
        </p>
      )}
      <button
        type="submit"
        className="mt-2 h-11 rounded-md bg-(--accent) px-4 text-base font-semibold text-(--on-accent) hover:opacity-90"
      >
        Come in
      </button>
    </form>
  );
}
