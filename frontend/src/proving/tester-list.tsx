/** Testers of a test: invited with a link each, who is where, reminders and thanks. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, TextField } from "../ui/controls";
import { Confirm, Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { ToldOnce } from "../ui/told-once";
import { hours } from "./makings";
import { type Call, useLetters, useTestActs } from "./use-proving";

type Tester = Call["testers"][number];
type Invited = Schemas["InvitedOut"];

export function TesterList({ design, call }: { design: Design; call: Call }) {
  const { renew, close } = useTestActs(design.id);
  const [given, setGiven] = useState<{ invited: Invited; name: string; mail: string } | null>(null);
  return (
    <>
      {call.testers.length > 0 && (
        <table className="mb-2 w-full text-sm">
          <thead className="text-left text-soft">
            <tr>
              {["Tester", "Where", "At work", "Yarn, hook, gauge", "Says", ""].map((name) => (
                <th key={name} className="pr-3 font-normal">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {call.testers.map((t) => (
              <Row
                key={t.id}
                design={design}
                tester={t}
                onRenew={() =>
                  renew.mutate(t.id, {
                    onSuccess: (invited) => setGiven({ invited, name: t.name, mail: t.mail }),
                  })
                }
                onClose={() => close.mutate(t.id)}
              />
            ))}
          </tbody>
        </table>
      )}
      <Invite design={design} call={call} onGiven={setGiven} />
      <Refused error={renew.error ?? close.error} />
      {given && <LinkGiven design={design} {...given} onClose={() => setGiven(null)} />}
    </>
  );
}

function Row({
  design,
  tester,
  onRenew,
  onClose,
}: {
  design: Design;
  tester: Tester;
  onRenew: () => void;
  onClose: () => void;
}) {
  const where = { asked: "not begun", making: `${Math.floor(100 * tester.share)} %`, done: "done" }[
    tester.state
  ];
  const yarn = [tester.yarn, tester.hook_mm ? `${tester.hook_mm} mm` : "", tester.gauge].filter(Boolean);
  return (
    <tr className="border-t border-line align-top">
      <td className="py-1 pr-3">
        <strong>{tester.name}</strong>
        {tester.mail && <span className="block text-soft">{tester.mail}</span>}
        {!tester.link && <span className="block text-soft">{tester.why}</span>}
      </td>
      <td className="py-1 pr-3">
        {where}
        {tester.at && tester.state === "making" && <span className="block text-soft">{tester.at}</span>}
      </td>
      <td className="py-1 pr-3">{tester.minutes ? hours(tester.minutes) : ""}</td>
      <td className="py-1 pr-3">
        {yarn.join(", ")}
        {tester.size && <span className="block text-soft">became {tester.size}</span>}
      </td>
      <td className="py-1 pr-3">
        {tester.words}
        {tester.remarks > 0 && (
          <span className="block text-soft">
            {tester.remarks} {tester.remarks === 1 ? "remark" : "remarks"}
          </span>
        )}
        {tester.pictures.map((p) => (
          <img
            key={p.picture}
            className="mt-1 mr-1 inline-block h-14 rounded"
            alt={`${p.text || "A photograph"} by ${tester.name}, ${p.shown ? "may be shown" : "not to be shown"}`}
            title={p.shown ? "May be shown" : "Not to be shown: she has not agreed"}
            src={`/api/makings/${p.making}/pictures/${p.picture}`}
          />
        ))}
      </td>
      <td className="whitespace-nowrap py-1 text-right">
        <LetterButton design={design} tester={tester} />
        {tester.making && (
          <Button weight="quiet" onClick={onRenew}>
            New link<span className="sr-only"> for {tester.name}</span>
          </Button>
        )}
        {tester.link && (
          <Confirm
            trigger={
              <Button weight="quiet" aria-label={`Withdraw ${tester.name}'s link`}>
                Withdraw
              </Button>
            }
            title={`Withdraw ${tester.name}'s link?`}
            about="Her page opens no more; what she gave stays. What she wrote without a net since stays on her device."
            yes="Withdraw it"
            onYes={onClose}
          />
        )}
      </td>
    </tr>
  );
}

/** A reminder, or thanks, to be sent or copied. */
function LetterButton({ design, tester }: { design: Design; tester: Tester }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button weight="quiet" onClick={() => setOpen(true)}>
        {tester.state === "done" ? "Thank" : "Remind"}
        <span className="sr-only"> {tester.name}</span>
      </Button>
      {open && (
        <Dialog open title={tester.letter.subject} onOpen={setOpen}>
          <LetterForm design={design} to={tester.mail} letter={tester.letter} />
        </Dialog>
      )}
    </>
  );
}

export function LetterForm({
  design,
  to,
  letter,
}: {
  design: Design;
  to: string;
  letter: Schemas["LetterText"];
}) {
  const { list, send } = useLetters(design.id);
  const [address, setAddress] = useState(to);
  const [body, setBody] = useState(letter.body);
  const [copied, setCopied] = useState(false);
  return (
    <div className="flex flex-col gap-2">
      <textarea
        aria-label="The letter"
        className="min-h-56 w-full rounded-md border border-strong bg-panel p-2"
        value={body}
        maxLength={10_000}
        onChange={(e) => setBody(e.target.value)}
      />
      <div className="flex flex-wrap items-end gap-2">
        <Button
          onClick={() =>
            navigator.clipboard.writeText(`${letter.subject}\n\n${body}`).then(
              () => setCopied(true),
              () => setCopied(false),
            )
          }
        >
          {copied ? "Copied" : "Copy"}
        </Button>
        <TextField
          label="To"
          type="email"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          className="min-w-52 flex-1"
        />
        <Button
          weight="main"
          disabled={send.isPending || send.isSuccess || !address.trim()}
          onClick={() => send.mutate({ to: address.trim(), subject: letter.subject, body })}
        >
          {send.isSuccess ? "Sent" : "Send"}
        </Button>
      </div>
      {list.data?.by_folder && (
        <p className="text-sm text-soft">
          No mail server is set here: the letter is written into the folder of letters and listed below, not
          sent.
        </p>
      )}
      <Refused error={send.error} />
    </div>
  );
}

function Invite({
  design,
  call,
  onGiven,
}: {
  design: Design;
  call: Call;
  onGiven: (given: { invited: Invited; name: string; mail: string }) => void;
}) {
  const { invite } = useTestActs(design.id);
  const [name, setName] = useState("");
  const [mail, setMail] = useState("");
  const ask = () =>
    invite.mutate(
      { id: call.id, name: name.trim(), mail: mail.trim() },
      {
        onSuccess: (invited) => {
          onGiven({ invited, name: name.trim(), mail: mail.trim() });
          setName("");
          setMail("");
        },
      },
    );
  return (
    <div className="mb-3">
      <div className="flex flex-wrap items-end gap-2">
        <TextField
          label="Invite a tester"
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.target.value)}
          className="min-w-40 flex-1"
        />
        <TextField
          label="Her mail, if known"
          type="email"
          value={mail}
          onChange={(e) => setMail(e.target.value)}
          className="min-w-40 flex-1"
        />
        <Button disabled={!name.trim() || invite.isPending} onClick={ask}>
          Make her link
        </Button>
      </div>
      <Refused error={invite.error} />
    </div>
  );
}

function LinkGiven({
  design,
  invited,
  name,
  mail,
  onClose,
}: {
  design: Design;
  invited: Invited;
  name: string;
  mail: string;
  onClose: () => void;
}) {
  return (
    <Dialog open title={`A link for ${name}`} onOpen={(open) => !open && onClose()}>
      <ToldOnce what="Her link" address={`${window.location.origin}${invited.path}`} />
      <div className="mt-3">
        <LetterForm design={design} to={mail} letter={invited.letter} />
      </div>
    </Dialog>
  );
}
