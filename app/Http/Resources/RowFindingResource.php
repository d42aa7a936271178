<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Queries\Review\RulableRow;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use NineTally\Core\Row\Side;
use NineTally\Core\Wording\Sentences;

/** @property RulableRow $resource */
final class RowFindingResource extends JsonResource
{
    public static $wrap = null;

    /** A list shows the beginning of a row; the record shows it whole. */
    private const EXCERPT = 160;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            ...self::facts($this->resource),
            'excerpt' => $this->excerpt(),
            'differingCells' => $this->resource->finding->differingCells,
        ];
    }

    /**
     * What the API says of a row wherever it shows one.
     *
     * @return array<string, mixed>
     */
    public static function facts(RulableRow $rulable): array
    {
        $row = $rulable->finding;

        return [
            'sequence' => $row->sequence,
            'class' => $row->class->value,
            'side' => $row->side?->value,
            'key' => $row->deliveredKey?->asCsv(),
            'ordinal' => $row->ordinal === 0 ? null : $row->ordinal,
            'sourceRows' => $row->rowsOfKey['source'],
            'targetRows' => $row->rowsOfKey['target'],
            'sourceLine' => $row->placeOn(Side::Source)?->line,
            'targetLine' => $row->placeOn(Side::Target)?->line,
            'reason' => $row->reason?->value,
            'keptLine' => $row->kept?->line,
            'isBridged' => $row->isBridged,
            ...$rulable->standing->toArray(),
        ];
    }

    private function excerpt(): string
    {
        $row = $this->resource->finding;
        if ($row->refused !== null) {
            return mb_substr(
                (new Sentences)->refusal($row->refused->reason, $row->refused->facts).': '.str_replace("\n", ' ', $row->refused->raw),
                0,
                self::EXCERPT,
            );
        }

        return mb_substr(
            implode(
                '  ',
                array_map(
                    static fn(string $value): string => mb_substr($value, 0, self::EXCERPT),
                    array_slice($row->record()->cells ?? [], 0, 20),
                ),
            ),
            0,
            self::EXCERPT,
        );
    }
}
