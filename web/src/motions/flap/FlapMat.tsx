import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Prediction } from "../../api/client";
import { Outcomes } from "../../parts/Outcomes";
import { number } from "../../units";

/** What the mats of flappers have alike: how it goes, two columns, what it comes to. */
export function FlapMat({
  prediction,
  many,
  left,
  right,
  says,
  way,
  children,
}: {
  prediction: Prediction;
  many: string;
  left: ReactNode;
  right: ReactNode;
  /** Told after how it goes. */
  says: string;
  way: string;
  children: ReactNode;
}) {
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100 ${many}`}
      </p>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <div className="grid min-w-0 gap-2">{left}</div>
        <div className="flex min-w-0 flex-col gap-2">
          {right}
          <Outcomes outcomes={prediction.outcomes} />
        </div>
      </div>
      <p className="text-quiet">
        {prediction.mode_words} {says}{" "}
        <Link to={`/not-known/${way}`} className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
      {children}
    </div>
  );
}
