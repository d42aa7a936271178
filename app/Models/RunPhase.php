<?php

declare(strict_types=1);

namespace App\Models;

/** The phases of a run, in their order; each is a number of tasks that any worker may do. */
enum RunPhase: string
{
    /** The steps of a side are run on its delivery. */
    case Prepare = 'prepare';

    /** A large file is looked through for places where it can be cut. */
    case Divide = 'divide';

    case Scan = 'scan';

    case Match = 'match';

    /** The causes of whole columns are decided, the sums must hold, and the findings are put in order. */
    case Merge = 'merge';

    case Load = 'load';

    case Index = 'index';

    case Enter = 'enter';

    public function next(): ?self
    {
        return self::cases()[array_search($this, self::cases(), true) + 1] ?? null;
    }

    /** What a person is told of it. */
    public function state(): RunState
    {
        return match ($this) {
            self::Prepare, self::Divide, self::Scan => RunState::Reading,
            self::Match => RunState::Matching,
            self::Merge => RunState::Merging,
            self::Load, self::Index, self::Enter => RunState::Loading,
        };
    }

    /** Of the time of a run, as measured where every row has findings; from 0 to 1. */
    public function share(): float
    {
        return match ($this) {
            self::Prepare => 0.10,
            self::Divide => 0.01,
            self::Scan => 0.24,
            self::Match => 0.30,
            self::Merge => 0.17,
            self::Load, self::Index => 0.08,
            self::Enter => 0.02,
        };
    }

    public function shareBefore(): float
    {
        $share = 0.0;
        foreach (self::cases() as $phase) {
            if ($phase === $this) {
                break;
            }
            $share += $phase->share();
        }

        return $share;
    }
}
