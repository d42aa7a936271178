<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

/** What one side has in one group of a control total. */
final class GroupFigures
{
    public int $rows = 0;

    public int $blanks = 0;

    /** Cells with a value that cannot be read as what the total takes. */
    public int $unread = 0;

    /** Quantities whose unit value is not there: they add nothing, and are no noughts. */
    public int $unvalued = 0;

    public ExactSum $sum;

    /** The least or the greatest value as it stands, and the key of the first row that has it. */
    public ?string $extreme = null;

    /** @var list<string> */
    public array $keyOfExtreme = [];

    private int $lineOfExtreme = 0;

    /**
     * Of the columns that are read along: the first value, and whether another stands there.
     *
     * @var array<int, array{value: string, canonical: string, differs: bool}>
     */
    public array $along = [];

    /** @param list<string> $labels the values of the group columns, as they first stood there */
    public function __construct(public readonly array $labels)
    {
        $this->sum = new ExactSum;
    }

    /**
     * A value of which the least or the greatest is wanted; that of the first of several rows stays.
     *
     * @param  list<string>  $key  of its row
     * @param  int  $line  of its row: rows of a block come by how their group is written
     */
    public function see(string $value, TotalColumns $total, array $key, int $line): void
    {
        $rank = $total->order->rank($value);
        if ($rank === null) {
            $this->unread++;

            return;
        }
        $apart = $this->extreme === null ? null : $total->order->compare($rank, $total->order->rank($this->extreme));
        $isBeyond = $apart === null || ($total->total->measure === Measure::Least ? $apart < 0 : $apart > 0);
        if ($isBeyond || $apart === 0 && $line < $this->lineOfExtreme) {
            [$this->extreme, $this->keyOfExtreme, $this->lineOfExtreme] = [$value, $key, $line];
        }
    }

    /** A value of a column that is read along. */
    public function seeAlong(int $nth, string $value, string $canonical, bool $differs = false): void
    {
        $this->along[$nth] ??= ['value' => $value, 'canonical' => $canonical, 'differs' => false];
        $this->along[$nth]['differs'] = $this->along[$nth]['differs'] || $differs || $this->along[$nth]['canonical'] !== $canonical;
    }

    /** What a later stretch of the side has in the group. */
    public function take(self $later, TotalColumns $total): void
    {
        $this->rows += $later->rows;
        $this->blanks += $later->blanks;
        $this->unread += $later->unread;
        $this->unvalued += $later->unvalued;
        $this->sum->addSum($later->sum);
        if ($later->extreme !== null) {
            $this->see($later->extreme, $total, $later->keyOfExtreme, PHP_INT_MAX);
        }
        foreach ($later->along as $nth => ['value' => $value, 'canonical' => $canonical, 'differs' => $differs]) {
            $this->seeAlong($nth, $value, $canonical, $differs);
        }
    }
}
