import { SignIn } from "../features/people";

/** What is shown to whoever is not signed in, at any address; the address stays. */
export default function EntrancePage() {
  return <SignIn />;
}
