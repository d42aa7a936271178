<?php

declare(strict_types=1);

namespace NineTally\Docs;

use App\Rulings\FindingSet\Filter;

/** What the front end must know as the server does, made from the server's own lists. */
final readonly class FrontEnd
{
    /** Those that somebody meets on the stations in the first hour. */
    private const OWN_WORDS = [
        'delivery', 'part', 'step', 'reference', 'plan', 'column pair', 'crosswalk', 'guess', 'tally', 'finding', 'pattern', 'family',
        'act of ruling', 'agreement', 'control total', 'share', 'limit', 'waiver',
    ];

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
            'resources/js/format/ownWords.ts' => $this->ownWords(),
            'resources/js/api/filterTerms.ts' =>
                "// The terms of a filter, made by bin/docs from app/Rulings/FindingSet/Filter.php: what there is, what only cells have, ".
                    "what only rows have, what is a number, what may be blank.\n".
                implode('', $lines),
        ];
    }

    /** Our own words for our own things, each with its sentence of docs/words.md. */
    private function ownWords(): string
    {
        preg_match_all('/^\| ([a-z, ]+) \| ([^|]+) \|/m', (string) file_get_contents(__DIR__.'/words.md'), $rows, PREG_SET_ORDER);
        $sentences = [];
        foreach ($rows as [, $words, $sentence]) {
            foreach (explode(', ', $words) as $word) {
                $sentences[$word] ??= trim($sentence);
            }
        }
        $lines = '';
        foreach (self::OWN_WORDS as $word) {
            $sentence = $sentences[$word] ?? throw new \LogicException("docs/words.md does not say what \"{$word}\" is.");
            $lines .= sprintf("  ['%s', '%s'],\n", $word, addcslashes($sentence, "'\\"));
        }

        return "// Our own words, made by bin/docs from docs/words.md.\n// prettier-ignore\n".
            "export const OWN_WORDS: ReadonlyMap<string, string> = new Map([\n{$lines}])\n";
    }
}
