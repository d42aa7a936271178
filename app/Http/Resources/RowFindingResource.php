<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Queries\Review\RowLine;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property RowLine $resource */
final class RowFindingResource extends JsonResource
{
    public static $wrap = null;

    /** A list shows the beginning of a row; the record shows it whole. */
    private const EXCERPT = 160;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $row = $this->resource;

        return [
            'sequence' => $row->sequence,
            'class' => $row->class,
            'side' => $row->side,
            'key' => $row->key,
            'sourceRows' => $row->sourceRows,
            'targetRows' => $row->targetRows,
            'sourceLine' => $row->sourceLine,
            'targetLine' => $row->targetLine,
            'excerpt' => $this->excerpt(),
            'differingCells' => $row->differingCells,
            'decision' => $row->decision->value,
            'rulingId' => $row->rulingId,
            'earlier' => $row->earlier?->toArray(),
        ];
    }

    private function excerpt(): string
    {
        $row = $this->resource;
        if ($row->refusal !== null) {
            return mb_substr(str_replace("\n", ': ', $row->refusal), 0, self::EXCERPT);
        }

        return mb_substr(implode('  ', array_map(static fn(string $value): string => mb_substr($value, 0, self::EXCERPT), array_slice($row->cells() ?? [], 0, 20))), 0, self::EXCERPT);
    }
}
