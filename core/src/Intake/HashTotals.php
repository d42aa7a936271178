<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** Adds up columns of a delivery as it is read, for the totals that the deliverer gives with it. Exact decimals. */
final class HashTotals
{
    /** @var array<string, BigDecimal> by column */
    private array $sums;

    /** @var array<string, int> by column: values that are no number, and so in no sum */
    private array $unreadable;

    private readonly Reading $reading;

    /** @param list<string> $columns */
    public function __construct(private readonly array $columns)
    {
        $this->sums = array_fill_keys($columns, BigDecimal::zero());
        $this->unreadable = array_fill_keys($columns, 0);
        $this->reading = new Reading(Kind::Number);
    }

    /**
     * @param  list<string>  $cells
     * @param  array<string, int>  $places  of the columns; one that is not there is in no sum of this part
     */
    public function add(array $cells, array $places): void
    {
        foreach ($this->columns as $column) {
            $value = isset($places[$column]) ? trim($cells[$places[$column]]) : '';
            if ($value === '') {
                continue;
            }
            // Numbers that identify are added up too, and they may begin with zeros.
            $number = $this->reading->number($value)?->toBigDecimal();
            if ($number === null) {
                $this->unreadable[$column]++;
            } else {
                $this->sums[$column] = $this->sums[$column]->plus($number);
            }
        }
    }

    public function sum(string $column): BigDecimal
    {
        return $this->sums[$column];
    }

    public function unreadable(string $column): int
    {
        return $this->unreadable[$column];
    }
}
