<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/** To what a figure is narrowed, and how that is named in a plan. */
enum LimitScope: string
{
    /** By its stable id. */
    case Pair = 'pair';

    /** By its number in the delivery: "2". */
    case Part = 'part';

    /** By side and number: "source 2". */
    case SidePart = 'side-part';

    /** By side and id: "source no-test-rows". */
    case Step = 'step';

    /** By pair and cause: "pair-000000000001 truncated"; all that this cause explains there. */
    case Pattern = 'pattern';

    /** By its id. */
    case Cause = 'cause';

    /** By its sentence: "sum of fee by basin". */
    case Total = 'total';

    /** By its sentence. */
    case Record = 'record';
}
