<?php

declare(strict_types=1);

namespace NineTally\Core\Wording;

/** What is no error but must be seen. Each names the facts that go with it; sides are "source" and "target". */
enum WarningKind: string
{
    /** side */
    case NoRows = 'no-rows';

    /** side; step and does, where one step took the last rows */
    case EverythingLeftOut = 'everything-left-out';

    /** side */
    case EverythingRepeated = 'everything-repeated';

    /** side */
    case QuoteLeftOpen = 'quote-left-open';

    /** side, keys */
    case RepeatedHereOnly = 'repeated-here-only';

    /** side, keys */
    case RepeatedByForgiving = 'repeated-by-forgiving';

    /** side, rows */
    case PartlyBlankKeys = 'partly-blank-keys';

    /** column, cells; values, where they are few enough to be listed */
    case WithoutEntry = 'without-entry';

    /** side, keys */
    case Undecided = 'undecided';

    /** source and target: rows */
    case AgreesButLeftOut = 'agrees-but-left-out';

    /** source and target: keys in CSV. They are values of the data, and the only ones that a warning has. */
    case IdleBridge = 'idle-bridge';
}
