<?php

declare(strict_types=1);

namespace NineTally\Tests;

use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/** Forty tables as people hand them over, each written in another awkward way, with what they hold. */
final readonly class AwkwardFiles
{
    private const COLUMNS = ['berth', 'holder', 'basin', 'fee', 'from'];

    private const NUMBERED = ['column 1', 'column 2', 'column 3', 'column 4', 'column 5'];

    private const DELIMITERS = [
        'comma' => ',', 'semicolon' => ';', 'tab' => "\t", 'bar' => '|', 'caret' => '^', 'tilde' => '~', 'unit-separator' => "\x1F",
        'mark' => '!', 'hash' => '#',
    ];

    /** @param list<list<string>> $rows of the table */
    private function __construct(private string $folder, private array $rows) {}

    /** @return \Generator<int, AwkwardFile> written below a folder */
    public static function in(string $folder): \Generator
    {
        $rows = [];
        foreach (range(1, 40) as $number) {
            $day = sprintf('2024-0%d-11', $number % 9 + 1);
            $rows[] = ["B{$number}", "Holder, {$number}", $number % 2 === 0 ? 'KB' : 'LM', (string) ($number * 7), $day];
        }
        $files = new self($folder, $rows);
        foreach ([$files->texts(...), $files->edges(...), $files->otherKinds(...), $files->workbooks(...)] as $some) {
            foreach ($some() as $file) {
                yield $file;
            }
        }
    }

    /** @return \Generator<int, AwkwardFile> */
    private function texts(): \Generator
    {
        foreach (self::DELIMITERS as $name => $by) {
            yield $this->text('delimiter', "by-{$name}.txt", $this->table($by));
        }
        yield $this->text('quote sign', 'single-quotes.csv', $this->table(',', "'"));
        yield $this->text(
            'quote sign',
            'single-quotes-semicolon.csv',
            $this->table(';', "'", [['B0', "a; b 'c'", 'KB', '1', '2024-01-01']]),
        );
        $accented = array_map(static fn(array $row): array => [$row[0], "Bríd {$row[1]}", $row[2], $row[3], $row[4]], $this->rows);
        $lines = $this->table(';', '"', $accented);
        yield $this->file('encoding', 'utf-16.txt', "\xFF\xFE".mb_convert_encoding(self::joined($lines), 'UTF-16LE', 'UTF-8'), $accented);
        yield $this->file('encoding', 'windows-1252.csv', mb_convert_encoding(self::joined($lines), 'Windows-1252', 'UTF-8'), $accented);
        yield $this->file('encoding', 'with-mark.csv', "\xEF\xBB\xBF".self::joined($lines, "\r\n"), $accented);
        yield $this->file('encoding', 'old-line-ends.csv', self::joined($this->table(','), "\r"), $this->rows);
        $named = array_map(static fn(array $row): array => [$row[0], $row[1], $row[2], "class {$row[3]}", 'x'], $this->rows);
        yield $this->file('no names', 'no-names.csv', self::joined(array_slice($this->table(','), 1)), $this->rows, self::NUMBERED);
        $words = self::joined(array_slice($this->table(',', '"', $named), 1));
        yield $this->file('no names', 'no-names-all-text.csv', $words, $named, self::NUMBERED);
    }

    /** @return \Generator<int, AwkwardFile> what stands above and below */
    private function edges(): \Generator
    {
        $table = $this->table(',');
        yield $this->text('title above', 'title-lines.csv', ['Berth register', 'as of 31 January 2026', '', ...$table]);
        yield $this->text('title above', 'title-of-full-width.csv', ['Berth register 2026,,,,', ',,,,', ...$table]);
        yield $this->text('title above', 'title-with-figures.csv', ['Printed;31.01.2026', 'Rows;40', ...$this->table(';')]);
        yield $this->text('title above', 'separator-hint.csv', ['sep=;', ...$this->table(';')]);
        yield $this->text('total below', 'total-row.csv', [...$table, 'Total,,,5740,']);
        yield $this->text('total below', 'grand-total.csv', [...$this->table(';'), 'Grand total;;;5740;']);
        yield $this->text('notes below', 'notes-below.csv', [...$table, '', 'Source: harbour office', 'Printed on request']);
        yield $this->text('notes below', 'notes-of-full-width.csv', [...$table, ',,,,', 'Source: harbour office,,,,']);
        yield $this->text('groups of heads', 'groups-of-heads.csv', ['Mooring,,Place,Money,', ...$table]);
    }

    /** @return \Generator<int, AwkwardFile> */
    private function otherKinds(): \Generator
    {
        $rows = array_map(
            static fn(array $row): array => array_map(static fn(string $cell): string => str_replace(', ', '_', $cell), $row),
            $this->rows,
        );
        $fixed = array_map(static fn(array $row): string => rtrim(vsprintf('%-6s%-14s%-6s%6s  %-12s', $row)), [self::COLUMNS, ...$rows]);
        yield $this->file('fixed width', 'fixed.txt', self::joined($fixed), $rows);
        $objects = array_map(static fn(array $row): array => array_combine(self::COLUMNS, $row), $this->rows);
        $json = static fn(mixed $value): string => json_encode($value, JSON_THROW_ON_ERROR);
        yield $this->file('objects', 'records.json', $json(['made' => '2026', 'berths' => $objects]), $this->rows);
        yield $this->file('objects', 'lines.jsonl', self::joined(array_map($json, $objects)), $this->rows);
    }

    /** @return \Generator<int, AwkwardFile> */
    private function workbooks(): \Generator
    {
        $grid = [self::COLUMNS, ...$this->rows];
        $notes = ['Notes' => [['Berth register, kept by the harbour office'], ['Do not pass on']]];
        $codes = ['Codes' => [['code', 'name'], ['KB', 'King'], ['LM', 'Lime']]];
        $groups = ['Mooring', '', 'Place', 'Money', ''];
        $total = ['Total', '', '', '5740', ''];
        yield $this->workbook('workbook', 'plain.xlsx', ['Berths' => $grid]);
        yield $this->workbook('sheet', 'notes-first.xlsx', $notes + ['Berths' => $grid]);
        yield $this->workbook('sheet', 'one-cell-first.xlsx', ['Start' => [['see the next sheet']], 'Berths' => $grid] + $codes);
        yield $this->workbook('sheet', 'codes-first.xlsx', $codes + ['Berths' => $grid]);
        yield $this->workbook('title above', 'titles.xlsx', ['Berths' => [['Berth register 2026'], ['as of 31 January'], [], ...$grid]]);
        yield $this->workbook(
            'title above',
            'title-and-figures.xlsx',
            ['Berths' => [['Berth register', '2026'], ['Rows', '40'], ...$grid]],
        );
        yield $this->workbook('groups of heads', 'groups.xlsx', ['Berths' => [$groups, ...$grid]]);
        yield $this->workbook('total below', 'total.xlsx', ['Berths' => [...$grid, $total]]);
        yield $this->workbook(
            'notes below',
            'notes.xlsx',
            ['Berths' => [...$grid, [], ['Source: harbour office'], ['Printed on request']]],
        );
        $aside = array_map(static fn(array $row): array => ['', ...$row], [[], [], ...$grid]);
        yield $this->workbook('workbook', 'not-in-the-corner.xlsx', ['Berths' => $aside]);
        $all = [['Berth register 2026'], [], $groups, ...$grid, $total, [], ['Source: harbour office']];
        yield $this->workbook('workbook', 'all-of-it.xlsx', $notes + ['Berths' => $all]);
    }

    /**
     * @param  list<list<string>>  $rows  instead of those of the table; none for those
     * @return list<string> with a line of names
     */
    private function table(string $by, string $quote = '"', array $rows = []): array
    {
        return array_map(
            static fn(array $row): string => implode($by, array_map(
                static fn(string $cell): string => str_contains($cell, $by) || str_contains($cell, $quote)
                    ? $quote.str_replace($quote, $quote.$quote, $cell).$quote
                    : $cell,
                $row,
            )),
            [self::COLUMNS, ...$rows === [] ? $this->rows : $rows],
        );
    }

    /** @param list<string> $lines */
    private static function joined(array $lines, string $end = "\n"): string
    {
        return implode($end, $lines).$end;
    }

    /** @param list<string> $lines */
    private function text(string $kind, string $name, array $lines): AwkwardFile
    {
        $rows = str_contains($name, 'quotes-semicolon') ? [['B0', "a; b 'c'", 'KB', '1', '2024-01-01']] : $this->rows;

        return $this->file($kind, $name, self::joined($lines), $rows);
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  list<string>  $columns
     */
    private function file(string $kind, string $name, string $bytes, array $rows, array $columns = self::COLUMNS): AwkwardFile
    {
        file_put_contents("{$this->folder}/{$name}", $bytes);

        return new AwkwardFile($kind, "{$this->folder}/{$name}", $columns, $rows);
    }

    /** @param array<string, list<list<string>>> $sheets */
    private function workbook(string $kind, string $name, array $sheets): AwkwardFile
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile("{$this->folder}/{$name}");
        $isFirst = true;
        foreach ($sheets as $sheet => $lines) {
            $current = $isFirst ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
            $current->setName($sheet);
            $isFirst = false;
            foreach ($lines as $line) {
                $writer->addRow(WriterEntityFactory::createRowFromArray($line));
            }
        }
        $writer->close();

        return new AwkwardFile($kind, "{$this->folder}/{$name}", self::COLUMNS, $this->rows);
    }
}
