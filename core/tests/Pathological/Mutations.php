<?php

declare(strict_types=1);

namespace NineTally\Tests\Pathological;

use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * Tables that were damaged at random: the same for a seed and a number, so that one that does harm can be made again. What is packed is
 * damaged as it is, or within and packed anew, so that no checksum keeps the damage from the reader.
 */
final class Mutations
{
    public const READERS = ['csv', 'fixed.txt', 'json', 'jsonl', 'xml', 'xlsx', 'ods', 'csv.gz', 'zip'];

    /** What readers stumble over, put in at random. */
    private const TOKENS = [
        "\0",
        '"',
        '""',
        "\n",
        "\r\n",
        "\r",
        ',',
        ';',
        "\t",
        '{', '}', '[', ']', '<', '>', '&', '/>', '</', ']]>', '<!--', '\\', '\\u', 'null', '1e999', '-',
        "\xFF\xFE",
        "\xEF\xBB\xBF",
        "\xC3",
        '9999999999999999999',
        "'",
        '=',
        '<![CDATA[',
        '&#0;',
        '&amp',
        'r="99999999"',
        's="',
        't="s"',
        'table:number-columns-repeated="999999999"',
        'table:number-rows-repeated="999999999"',
    ];

    /** @var array<string, string> */
    private array $samples = [];

    /** @param string $folder for what the packages need as files */
    public function __construct(private readonly string $folder, private readonly int $seed) {}

    public function file(string $reader, int $number): string
    {
        $random = new Randomizer(new Xoshiro256StarStar(hash('sha256', "{$this->seed} {$reader} {$number}", true)));
        $sample = $this->samples[$reader] ??= $this->sample($reader);
        $isPacked = in_array($reader, ['xlsx', 'ods', 'zip'], true);
        if ($isPacked && $random->getInt(0, 2) > 0) {
            return $this->damagedWithin($sample, $random);
        }
        if ($reader === 'csv.gz' && $random->getInt(0, 1) === 1) {
            return (string) gzencode($this->damaged((string) gzdecode($sample), $random));
        }

        return $this->damaged($sample, $random);
    }

    private function damaged(string $bytes, Randomizer $random): string
    {
        for ($times = $random->getInt(1, 8); $times > 0 && $bytes !== ''; $times--) {
            $at = $random->getInt(0, strlen($bytes) - 1);
            $length = $random->getInt(1, min(400, strlen($bytes) - $at));
            $bytes = match ($random->getInt(0, 7)) {
                0 => substr_replace($bytes, chr($random->getInt(0, 255)), $at, 1),
                1 => substr_replace($bytes, chr(ord($bytes[$at]) ^ (1 << $random->getInt(0, 7))), $at, 1),
                2 => substr($bytes, 0, $at),
                3 => substr_replace($bytes, '', $at, $length),
                4 => substr_replace($bytes, str_repeat(substr($bytes, $at, $length), $random->getInt(2, 40)), $at, 0),
                5 => substr_replace($bytes, self::TOKENS[$random->getInt(0, count(self::TOKENS) - 1)], $at, $random->getInt(0, 4)),
                6 => substr_replace($bytes, $random->getBytes($length), $at, $length),
                default => substr_replace($bytes, str_repeat(self::TOKENS[$random->getInt(0, count(self::TOKENS) - 1)], 300), $at, 0),
            };
        }

        return $bytes;
    }

    private function damagedWithin(string $packed, Randomizer $random): string
    {
        $path = "{$this->folder}/within.zip";
        file_put_contents($path, $packed);
        $archive = new \ZipArchive;
        $archive->open($path);
        $name = (string) $archive->getNameIndex($random->getInt(0, $archive->numFiles - 1));
        $archive->addFromString($name, $this->damaged((string) $archive->getFromName($name), $random));
        $archive->close();

        return (string) file_get_contents($path);
    }

    private function sample(string $reader): string
    {
        $rows = [['basin', 'berth', 'holder', 'fee', 'paid_on']];
        for ($berth = 1; $berth <= 60; $berth++) {
            $rows[] = [
                'KB',
                sprintf('%04d', $berth),
                $berth % 7 === 0 ? "Ågren, \"Ida\"\nat the lock" : "Holder {$berth}",
                sprintf('%d.50', $berth * 7),
                '2026-11-03',
            ];
        }
        $objects = array_map(static fn(array $row): array => array_combine($rows[0], $row), array_slice($rows, 1));
        $csv = implode('', array_map(self::csvLine(...), $rows));

        return match ($reader) {
            'csv' => $csv,
            'fixed.txt' => implode('', array_map(
                static fn(array $row): string => sprintf("%-6s%-7s%-22s%10s  %-10s\n", ...str_replace("\n", ' ', $row)),
                $rows,
            )),
            'json' => (string) json_encode(['register' => ['berths' => $objects]], JSON_UNESCAPED_UNICODE),
            'jsonl' => implode("\n", array_map(static fn(array $one): string => (string) json_encode($one), $objects)),
            'xml' => '<?xml version="1.0"?><register>'.
                implode(
                    '',
                    array_map(
                        static fn(array $one): string => '<berth at="'.
                            $one['berth'].
                            '">'.
                            implode(
                                '',
                                array_map(
                                    static fn(string $name, string $value): string => "<{$name}>".htmlspecialchars($value)."</{$name}>",
                                    array_keys($one),
                                    $one,
                                ),
                            ).
                            '</berth>',
                        $objects,
                    ),
                ).
                '</register>',
            'xlsx', 'ods' => $this->workbook($reader, $rows),
            'csv.gz' => (string) gzencode($csv),
            default => $this->zip($csv),
        };
    }

    /** @param list<string> $row */
    private static function csvLine(array $row): string
    {
        return implode(
            ',',
            array_map(
                static fn(string $cell): string => strpbrk($cell, "\",\n") === false ? $cell : '"'.str_replace('"', '""', $cell).'"',
                $row,
            ),
        )."\n";
    }

    /** @param list<list<string>> $rows */
    private function workbook(string $kind, array $rows): string
    {
        $path = "{$this->folder}/sample.{$kind}";
        $writer = $kind === 'ods' ? WriterEntityFactory::createODSWriter() : WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach ($rows as $row) {
            $writer->addRow(WriterEntityFactory::createRowFromArray($row));
        }
        $writer->close();

        return (string) file_get_contents($path);
    }

    private function zip(string $csv): string
    {
        $path = "{$this->folder}/sample.zip";
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        $archive->addFromString('moorings.csv', $csv);
        $archive->close();

        return (string) file_get_contents($path);
    }
}
