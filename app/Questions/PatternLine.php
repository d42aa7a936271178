<?php

declare(strict_types=1);

namespace App\Questions;

/**
 * What became of the findings of one pattern, or of one row class, from a tally to a later one:
 * before = settled + still + otherwiseNow, and now = still + otherwiseBefore + new + cameBack.
 */
final class PatternLine
{
    public int $settled = 0;

    /** With the same values, under the same sentence. */
    public int $still = 0;

    /** Of the earlier tally: there now with other values or under another sentence. */
    public int $otherwiseNow = 0;

    /** Of the later tally: there before with other values or under another sentence. */
    public int $otherwiseBefore = 0;

    public int $new = 0;

    /** Not there before, but in an older tally. */
    public int $cameBack = 0;

    /** The number of the pattern in either tally that has it. */
    public ?int $earlierPattern = null;

    public ?int $laterPattern = null;

    public function __construct(
        public readonly string $kind,
        public readonly string $column,
        public readonly string $cause,
        public readonly string $sentence,
    ) {}

    public function moved(): int
    {
        return $this->settled + $this->otherwiseNow + $this->otherwiseBefore + $this->new + $this->cameBack;
    }

    /**
     * @return array{kind: string, column: string, cause: string, sentence: string, earlierPattern: int|null, laterPattern: int|null,
     *     before: int, settled: int, still: int, otherwiseNow: int, otherwiseBefore: int, new: int, cameBack: int, now: int}
     */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind,
            'column' => $this->column,
            'cause' => $this->cause,
            'sentence' => $this->sentence,
            'earlierPattern' => $this->earlierPattern,
            'laterPattern' => $this->laterPattern,
            'before' => $this->settled + $this->still + $this->otherwiseNow,
            'settled' => $this->settled,
            'still' => $this->still,
            'otherwiseNow' => $this->otherwiseNow,
            'otherwiseBefore' => $this->otherwiseBefore,
            'new' => $this->new,
            'cameBack' => $this->cameBack,
            'now' => $this->still + $this->otherwiseBefore + $this->new + $this->cameBack,
        ];
    }
}
