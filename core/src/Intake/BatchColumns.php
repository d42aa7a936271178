<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Some cells of all rows of a batch, column by column: by one pattern, for taking each row apart costs twice as much. */
final readonly class BatchColumns
{
    /** @var list<int> in their order, each once */
    private array $places;

    private string $pattern;

    /** @param list<int> $places of the cells, from 0 */
    public function __construct(array $places)
    {
        $places = array_unique($places);
        sort($places);
        $this->places = $places;
        $this->pattern = self::pattern($places);
    }

    /** @return array<int, list<string>> the cells by their place */
    public function of(Batch $batch): array
    {
        if ($this->places === []) {
            return [];
        }
        preg_match_all($this->pattern, $batch->rows, $found);
        $columns = [];
        foreach ($this->places as $nth => $place) {
            $columns[$place] = $found[$nth + 1];
        }

        return $columns;
    }

    /** @param list<int> $places in their order */
    private static function pattern(array $places): string
    {
        $cell = '[^\xFF\xFE]*+';
        $pattern = '';
        foreach ($places as $nth => $place) {
            $between = $place - ($nth === 0 ? 0 : $places[$nth - 1] + 1);
            $pattern .= ($nth === 0 ? '' : '\xFF').($between === 0 ? '' : "(?:{$cell}\\xFF){{$between}}")."({$cell})";
        }

        // From the beginning of a row: at the end of all there is none.
        return "/(?:^|(?<=\\xFE)){$pattern}(?:\\xFF{$cell})*+(?:\\xFE|\$)/";
    }
}
