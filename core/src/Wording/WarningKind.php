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

    /** source and target: keys in CSV. They are values of the data. */
    case IdleBridge = 'idle-bridge';

    /** side, key in CSV: a value of the data too */
    case ReopenedChoice = 'reopened-choice';

    /** side, key in CSV */
    case IdleChoice = 'idle-choice';

    /** @return list<string> facts that are keys in CSV: the only values of the data that a warning has */
    public function keyFacts(): array
    {
        return match ($this) {
            self::IdleBridge => ['source', 'target'],
            self::ReopenedChoice, self::IdleChoice => ['key'],
            default => [],
        };
    }
}
