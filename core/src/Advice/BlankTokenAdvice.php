<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Values that one side writes where the other has none: frequent here, blank there in nearly every row that meets. Only what systems are
 * known to write for want of a value is proposed, and never a value that could be one: what the other side lacks may well be lost.
 */
final readonly class BlankTokenAdvice
{
    private const TOKENS = [
        'null', 'nil', 'none', 'n/a', 'n.a.', 'na', '#n/a', '-', '--', '---', '?', '.', '(null)', '(none)', '(blank)', '\\n', 'nan',
        '00.00.0000', '0000-00-00', '00/00/0000', '0000-00-00 00:00:00',
    ];

    private const FEWEST = 3;

    private const BLANK_PERCENT = 95;

    /**
     * @param  list<array{string, string}>  $cells  of rows that meet: of the side that is asked about, and of the other
     * @return list<array{token: string, rows: int, blank: int}> rows with the token, and those of them where the other side is blank
     */
    public function of(array $cells): array
    {
        $rows = $blank = [];
        foreach ($cells as [$here, $there]) {
            if ($here !== '' && strlen($here) <= 20 && in_array(strtolower($here), self::TOKENS, true)) {
                $rows[$here] = ($rows[$here] ?? 0) + 1;
                $blank[$here] = ($blank[$here] ?? 0) + ($there === '' ? 1 : 0);
            }
        }
        $tokens = [];
        foreach ($rows as $token => $count) {
            if ($count >= self::FEWEST && $blank[$token] * 100 >= self::BLANK_PERCENT * $count) {
                $tokens[] = ['token' => (string) $token, 'rows' => $count, 'blank' => $blank[$token]];
            }
        }

        return $tokens;
    }
}
