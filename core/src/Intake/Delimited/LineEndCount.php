<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

/** By what the records of a file end, counted while they are read. Line ends inside quotes belong to their cells and are not counted. */
final class LineEndCount
{
    private int $feeds = 0;

    private int $returns = 0;

    private int $both = 0;

    /** @param string $text in which each line end ends a record */
    public function add(string $text): void
    {
        $returns = substr_count($text, "\r");
        $both = $returns === 0 ? 0 : substr_count($text, "\r\n");
        $this->both += $both;
        $this->returns += $returns - $both;
        $this->feeds += substr_count($text, "\n") - $both;
    }

    /** Another reading begins. */
    public function forget(): void
    {
        $this->feeds = $this->returns = $this->both = 0;
    }

    /** @return array<'LF'|'CRLF'|'CR', positive-int> the most frequent first */
    public function toArray(): array
    {
        $counts = array_filter(
            [LineEnds::Lf->value => $this->feeds, LineEnds::Crlf->value => $this->both, LineEnds::Cr->value => $this->returns],
            static fn(int $count): bool => $count > 0,
        );
        arsort($counts);

        return $counts;
    }

    /** Such as "LF (59,998) and CR LF (2)"; nothing where no record has an end. */
    public function inWords(): string
    {
        $counts = $this->toArray();

        return implode(
            ' and ',
            array_map(
                static fn(string $end, int $count): string => sprintf(
                    '%s (%s)',
                    $end === LineEnds::Crlf->value ? 'CR LF' : $end,
                    number_format($count),
                ),
                array_keys($counts),
                $counts,
            ),
        );
    }
}
