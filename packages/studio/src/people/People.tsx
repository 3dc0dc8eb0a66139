import { type PersonSummary, ROLES, type Role } from "@bibliotope/wire";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { Labelled } from "../compose/Labelled.tsx";
import {
  useChangePersonMutation,
  useMakePersonMutation,
  usePeopleQuery,
  useRemovePersonMutation,
} from "../state/api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";
import { TextField } from "../ui/TextField.tsx";
import { ROLE_WORDS } from "./roles.ts";

const SELECT = "h-[30px] rounded border border-edge bg-field px-1.5";

/** Who may sign in, and what they may do. @param own number of the one who looks at it */
export function People({ own }: { own: number }) {
  const { data: people, error } = usePeopleQuery();
  const [change, { error: notChanged }] = useChangePersonMutation();
  const [remove, { error: notRemoved }] = useRemovePersonMutation();
  const wrong = error ?? notChanged ?? notRemoved;
  return (
    <section aria-label="People" className="mt-5">
      <h3 className="font-semibold">People</h3>
      <ul className="mt-2 border-y border-rule">
        {people?.map((person) => (
          <Row
            key={person.id}
            person={person}
            isOwn={person.id === own}
            setRole={(role) => void change({ id: person.id, change: { role } })}
            dropFactor={() => void change({ id: person.id, change: { dropSecondFactor: true } })}
            remove={() => void remove(person.id)}
          />
        ))}
      </ul>
      <Alert error={wrong} className="mt-2 text-madder" />
      <MakePerson />
    </section>
  );
}

interface RowProps {
  person: PersonSummary;
  isOwn: boolean;
  setRole: (role: Role) => void;
  /** Takes codes and passkeys away, for somebody who lost them. */
  dropFactor: () => void;
  remove: () => void;
}

function Row({ person, isOwn, setRole, dropFactor, remove }: RowProps) {
  const { name, role, hasPassword, hasSecondFactor, signedInAt } = person;
  const [isAsked, setIsAsked] = useState(false);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5 last:border-0">
      <span className="min-w-[10rem] flex-1 break-words">{name}</span>
      <span className="w-[11rem] text-[12.5px] text-quiet">
        {signedInAt ? `signed in ${moment(signedInAt)}` : "not signed in yet"}
        {hasPassword ? "" : ", with a link"}
        {hasSecondFactor ? (
          <span className="block">
            has a second factor
            {isOwn ? null : (
              <>
                {" · "}
                <button type="button" className="underline" onClick={dropFactor}>
                  turn off<span className="sr-only"> the second factor of {name}</span>
                </button>
              </>
            )}
          </span>
        ) : null}
      </span>
      <select
        aria-label={`Role of ${name}`}
        className={SELECT}
        value={role}
        onChange={(event) => setRole(event.target.value as Role)}
      >
        {ROLES.map((one) => (
          <option key={one} value={one} title={ROLE_WORDS[one].can}>
            {ROLE_WORDS[one].name}
          </option>
        ))}
      </select>
      <span className="w-[9rem] text-right">
        {isOwn ? (
          <span className="text-quiet">you</span>
        ) : isAsked ? (
          <>
            <button type="button" className="text-madder underline" onClick={remove}>
              Remove<span className="sr-only"> {name}</span>
            </button>{" "}
            <button type="button" className="underline" onClick={() => setIsAsked(false)}>
              Keep
            </button>
          </>
        ) : (
          <button type="button" className="underline" onClick={() => setIsAsked(true)}>
            Remove …<span className="sr-only"> {name}</span>
          </button>
        )}
      </span>
    </li>
  );
}

function MakePerson() {
  const { register, handleSubmit, reset } = useForm<{ name: string; password: string; role: Role }>({
    defaultValues: { name: "", password: "", role: "edit" },
  });
  const [make, { error, isLoading }] = useMakePersonMutation();
  const submit = handleSubmit((person) =>
    make(person)
      .unwrap()
      .then(
        () => reset({ name: "", password: "", role: person.role }),
        () => undefined,
      ),
  );
  return (
    <form onSubmit={submit} aria-label="Add a person" className="mt-3 flex flex-wrap items-end gap-3">
      <div className="w-[12rem]">
        <TextField label="Name" required maxLength={60} autoComplete="off" {...register("name")} />
      </div>
      <div className="w-[12rem]">
        <TextField
          label="Initial password, at least ten characters"
          type="password"
          required
          minLength={10}
          maxLength={200}
          autoComplete="new-password"
          {...register("password")}
        />
      </div>
      <Labelled label="Role">
        {(id) => (
          <select id={id} className={`${SELECT} h-[34px]`} {...register("role")}>
            {ROLES.map((one) => (
              <option key={one} value={one}>
                {ROLE_WORDS[one].name}
              </option>
            ))}
          </select>
        )}
      </Labelled>
      <Button type="submit" disabled={isLoading}>
        Add person
      </Button>
      <Alert error={error} className="w-full text-madder" />
    </form>
  );
}
