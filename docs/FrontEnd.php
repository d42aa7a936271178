<?php

declare(strict_types=1);

namespace NineTally\Docs;

use App\Rulings\FindingSet\Filter;

/** What the front end must know as the server does, made from the server's own lists. */
final readonly class FrontEnd
{
    /** @return array<string, string> content by path */
    public function files(): array
    {
        $lists = [
            'TERMS' => Filter::terms(),
            'OF_CELLS' => Filter::OF_CELLS,
            'OF_ROWS' => Filter::OF_ROWS,
            'NUMBERS' => Filter::NUMBERS,
            'MAY_BE_BLANK' => Filter::MAY_BE_BLANK,
        ];
        $lines = array_map(
            static fn(string $name, array $terms): string => sprintf(
                "// prettier-ignore\nexport const %s = [%s] as const\n",
                $name,
                implode(', ', array_map(static fn(string $term): string => "'{$term}'", $terms)),
            ),
            array_keys($lists),
            $lists,
        );

        return [
            'resources/js/api/filterTerms.ts' =>
                "// The terms of a filter, made by bin/docs from app/Rulings/FindingSet/Filter.php: what there is, what only cells have, ".
                    "what only rows have, what is a number, what may be blank.\n".
                implode('', $lines),
        ];
    }
}
