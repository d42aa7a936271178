<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Models\Delivery;
use App\Models\Tally;
use Illuminate\Database\Query\Builder;
use NineTally\Core\Row\Side;

/**
 * A column of a tally's rows, as an expression over the record that is kept with each: the value of the source, or of the target where
 * only that has one.
 */
final readonly class RowColumn
{
    private function __construct(private ?int $source, private ?int $target) {}

    /** @param string $name in the source, or in the target of a column that only it has */
    public static function of(Tally $tally, string $name): self
    {
        $plan = $tally->planVersion->plan();
        $names = [...array_combine($plan->pairedNames(Side::Source), $plan->pairedNames(Side::Target))];
        foreach ($plan->key as $column) {
            $names[$column->source] = $column->target;
        }
        $place = static function (Side $side, int $delivery, string $column) use ($plan): ?int {
            $columns = $plan->side($side)->preparation->columns(Delivery::query()->findOrFail($delivery)->columns);
            $found = array_search($column, $columns, true);

            return $found === false ? null : $found;
        };

        return new self(
            $place(Side::Source, $tally->source_delivery_id, $name),
            $place(Side::Target, $tally->target_delivery_id, $names[$name] ?? $name),
        );
    }

    /** Leaves the rows whose column has the value that a filter asks for; a column that nobody has is in no row. */
    public static function narrow(Builder $query, string $table, Tally $tally, Filter $filter): void
    {
        [$column, $value] = [$filter->text('column'), $filter->text('value')];
        if ($column === null || $value === null) {
            return;
        }
        $of = self::of($tally, $column);
        $of->isKnown() ? $query->whereRaw("{$of->sql($table)} = ?", [$value]) : $query->whereRaw('false');
    }

    public function isKnown(): bool
    {
        return $this->source !== null || $this->target !== null;
    }

    /** SQL over the table of rows under that name. Places are whole numbers, and no text of anybody's stands in it. */
    public function sql(string $table): string
    {
        return 'coalesce('.implode(', ', [
            ...$this->source === null ? [] : ["{$table}.source_cells->>{$this->source}"],
            ...$this->target === null ? [] : ["{$table}.target_cells->>{$this->target}"],
            "''",
        ]).')';
    }
}
