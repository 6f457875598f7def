import { Account } from "../features/people";
import { PlainPage } from "./plain-page";

/** Who one is here, and who else is. */
export default function AccountPage() {
  return (
    <PlainPage title="Your account">
      <Account />
    </PlainPage>
  );
}
