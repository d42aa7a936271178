<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Queries\Review\RulableCell;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property RulableCell $resource */
final class CellFindingResource extends JsonResource
{
    public static $wrap = null;

    /** A list shows a window around the first difference; longer values are cut at both ends, and the record shows them whole. */
    private const WINDOW = 200;

    private const BEFORE = 20;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $cell = $this->resource;
        [$source, $target] = $this->windows($cell->finding->source, $cell->finding->target);

        return [
            'sequence' => $cell->sequence,
            'rowSequence' => $cell->rowSequence,
            'pattern' => $cell->finding->place->number,
            'class' => $cell->finding->class->value,
            'key' => $cell->key?->asCsv(),
            'source' => $source,
            'target' => $target,
            'difference' => $cell->finding->difference?->value->written(),
            'relativeDifference' => $cell->finding->difference?->relative,
            ...$cell->standing->toArray(),
        ];
    }

    /** @return array{string, string} */
    private function windows(string $source, string $target): array
    {
        if (strlen($source) <= self::WINDOW && strlen($target) <= self::WINDOW) {
            return [$source, $target];
        }
        // XOR of two texts is zero as long as they are equal; the count is of bytes, so it is brought back to a character.
        $equal = strspn($source ^ $target, "\0");
        $start = max(0, mb_strlen(mb_strcut($source, 0, $equal)) - self::BEFORE);

        return [$this->window($source, $start), $this->window($target, $start)];
    }

    private function window(string $value, int $start): string
    {
        $piece = mb_substr($value, $start, self::WINDOW);

        return ($start > 0 ? '…' : '').$piece.(mb_strlen($value) > $start + self::WINDOW ? '…' : '');
    }
}
