import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// How long something may take that is waited for: no test measures speed, and a busy machine is no fault.
configure({ asyncUtilTimeout: 4_000 });

afterEach(cleanup);
