import { useSession } from "../../parts/Session.tsx";
import { OwnAccount } from "../access/OwnAccount.tsx";
import { Overview } from "./Overview.tsx";

/** What one begins with: how the series stand, or for one who may not read, what they may do. */
export function Home() {
  const { may } = useSession();
  return may("read") ? <Overview /> : <OwnAccount />;
}
