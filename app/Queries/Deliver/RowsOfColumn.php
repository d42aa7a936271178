<?php

declare(strict_types=1);

namespace App\Queries\Deliver;

use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Delivery;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Profile\FactFinder;
use NineTally\Core\Profile\ValueShape;
use NineTally\Core\Row\RecordPlace;

/** The rows behind a figure of a profile: the first that are so, in the order of the delivery. */
final readonly class RowsOfColumn
{
    private const SHOWN = 50;

    public function __construct(private DeliveryReader $reader) {}

    /**
     * @param  'blank'|'value'|'shape'|'invisible'|'line-ends'  $is
     * @return array{columns: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, isAll: bool}
     */
    public function __invoke(Delivery $delivery, string $column, string $is, string $value): array
    {
        $stack = $this->reader->stack($delivery);
        $place = (int) array_search($column, $stack->columns, true);

        return $this->first($stack, fn(RowCursor $row): bool => $this->holds($row->cells[$place], $is, $value));
    }

    /**
     * Rows that have the same values in some columns.
     *
     * @param  array<string, string|null>  $values  by column
     * @return array{columns: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, isAll: bool}
     */
    public function sharing(Delivery $delivery, array $values): array
    {
        $stack = $this->reader->stack($delivery);
        $wanted = [];
        foreach ($values as $column => $value) {
            $wanted[(int) array_search((string) $column, $stack->columns, true)] = (string) $value;
        }

        ksort($wanted);

        return $this->first($stack, static fn(RowCursor $row): bool => array_intersect_key($row->cells, $wanted) === $wanted);
    }

    /**
     * @param  \Closure(RowCursor): bool  $isOne
     * @return array{columns: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, isAll: bool}
     */
    private function first(PartStack $stack, \Closure $isOne): array
    {
        $rows = [];
        $isAll = true;
        foreach ($stack->records() as $packedPlace => $cells) {
            if (! is_array($cells) || ! $isOne(new RowCursor($cells))) {
                continue;
            }
            if (count($rows) === self::SHOWN) {
                $isAll = false;
                break;
            }
            $at = RecordPlace::ofPacked($packedPlace);
            $rows[] = ['part' => $at->part, 'line' => $at->line, 'cells' => array_map(DeliveryReader::shortened(...), $cells)];
        }

        return ['columns' => $stack->columns, 'rows' => $rows, 'isAll' => $isAll];
    }

    private function holds(string $cell, string $is, string $value): bool
    {
        return match ($is) {
            'blank' => $cell === '',
            'shape' => $cell !== '' && ValueShape::of($cell) === $value,
            'invisible' => FactFinder::hasInvisible($cell),
            'line-ends' => strpbrk($cell, "\r\n") !== false,
            default => $cell === $value,
        };
    }
}
