/** What a session is called and where it is, as both its forms ask. */
interface Props {
  name?: string;
  place?: string;
}

export function NamePlace({ name, place }: Props) {
  return (
    <>
      <NameInput name={name} />
      <label className="block">
        <span className="block text-[0.8rem] text-soft">Place and day</span>
        <input name="place" className="field w-full" maxLength={120} defaultValue={place} />
      </label>
    </>
  );
}

export function NameInput({ name }: { name?: string }) {
  return (
    <label className="block">
      <span className="block text-[0.8rem] text-soft">Name</span>
      <input name="name" className="field w-full" required maxLength={80} defaultValue={name} />
    </label>
  );
}
