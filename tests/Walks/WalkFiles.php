<?php

declare(strict_types=1);

namespace Tests\Walks;

use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/**
 * The files of five first hours, as two systems of Wherrymoor hand them over to somebody who has seen neither: made by a script, with what
 * is wrong in them on purpose. Two files of each are delivered, one for each side.
 */
final readonly class WalkFiles
{
    private const DAYS = 20_000;

    private \Random\Randomizer $random;

    public function __construct(private string $folder)
    {
        $this->random = new \Random\Randomizer(new \Random\Engine\Mt19937(1887));
    }

    /**
     * Vessels as JSON against text: names of columns in another writing, days with years of two digits, names that stand twice.
     *
     * @return array{string, string}
     */
    public function vessels(): array
    {
        $old = $new = [];
        for ($row = 0; $row < 600; $row++) {
            $built = intdiv(self::DAYS * $row, 600) - 7_000;
            $name =
                $row < 590
                    ? "{$this->word($row)} {$this->word(7 * $row + 3)}"
                    : "{$this->word($row - 590)} {$this->word(7 * ($row - 590) + 3)}";
            $fee = $this->random->getInt(2_000, 900_000) * 7;
            $old[] = [
                'Vessel_Name' => $name, 'Yard_Fee' => $fee, 'Launch_Date' => gmdate('j-M-y', $built * 86_400), 'Length_m' => 4 + $row % 17,
                'Keeper' => $this->word(3 * $row + 1),
            ];
            $new[] = [
                $name, (string) $fee, gmdate('M d Y', ($row % 60 === 7 ? $built + 1 : $built) * 86_400), (string) (4 + $row % 17),
                $row % 40 === 3 ? '' : $this->word(3 * $row + 1),
            ];
        }

        return [
            $this->put('vessels.json', json_encode($old, JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT)),
            $this->put('vessels-new.csv', $this->csv(['Vessel Name', 'Yard Fee', 'Launch Date', 'Length m', 'Keeper'], $new)),
        ];
    }

    /**
     * Holders in two encodings: letters that were edited, rows that only one side has.
     *
     * @return array{string, string}
     */
    public function holders(): array
    {
        $old = $new = [];
        for ($row = 1; $row <= 900; $row++) {
            $holder = [
                sprintf('H%05d', $row),
                "{$this->word($row)} Søgård-{$this->word(3 * $row)}",
                "{$this->word(5 * $row)} Lane ".$row % 90,
            ];
            $row % 30 === 4 || ($old[] = $holder);
            $row % 25 === 6 ||
                ($new[] = [$holder[0], $row % 18 === 5 ? str_replace('Lane', 'Lan', $holder[1]).'e' : $holder[1], $holder[2]]);
        }

        return [
            $this->put('holders.csv', mb_convert_encoding($this->csv(['holder', 'name', 'address'], $old, ';'), 'Windows-1252', 'UTF-8')),
            $this->put('holders-new.tsv', $this->csv(['holder', 'name', 'address'], $new, "\t")),
        ];
    }

    /**
     * Stores: the first two columns tell the rows of each side apart, and hardly any of them meet; the right two repeat a little.
     *
     * @return array{string, string}
     */
    public function stores(): array
    {
        $old = $new = [];
        for ($row = 0; $row < 500; $row++) {
            $item = "{$this->word($row % 250)}-".($row % 250);
            $place = ['north', 'south'][intdiv($row, 250)];
            $count = (string) $this->random->getInt(1, 400);
            $old[] = [$item, '1.'.$row % 7 .'-'.$row, $place, "Shelf {$row}", $count];
            $row % 50 === 9 ||
                ($new[] = [$item, '2.'.$row % 5 .'-'.(1_000 + $row), $place, "Shelf {$row}", $row % 60 === 11 ? "{$count}0" : $count]);
        }
        array_push($old, $old[3], $old[4]);
        array_push($new, $new[8]);

        return [
            $this->put('stores.csv.gz', (string) gzencode($this->csv(['Item', 'Edition', 'Place', 'Shelf', 'In stock'], $old))),
            $this->put('stores-new.csv.gz', (string) gzencode($this->csv(['Item', 'Edition', 'Place', 'Shelf', 'In stock'], $new))),
        ];
    }

    /**
     * Clocks of the locks: quick to match, and walked by keyboard alone.
     *
     * @return array{string, string}
     */
    public function clocks(): array
    {
        $old = $new = [];
        for ($row = 0; $row < 300; $row++) {
            $clock = [sprintf('L%03d', $row), $this->word($row), $row % 2 === 0 ? 'Y' : 'N', sprintf('%02d:%02d', $row % 24, $row % 60)];
            $old[] = $clock;
            $new[] = [$clock[0], $row % 20 === 1 ? strtoupper($clock[1]) : $clock[1], $clock[2] === 'Y' ? 'true' : 'false', $clock[3]];
        }

        return [
            $this->put('clocks.csv', $this->csv(['lock', 'name', 'wound', 'set at'], $old)),
            $this->put('clocks-new.csv', $this->csv(['lock', 'name', 'wound', 'set at'], $new)),
        ];
    }

    /**
     * The hard one: tolls in a wide workbook with a sheet of notes before it, titles and a total, a column for each month, numbers of
     * depots that lost their zeros; against a long text with decimal commas, days in another form, and zeros.
     *
     * @return array{string, string}
     */
    public function tolls(): array
    {
        $months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
        $wide = $long = [];
        foreach (range(1, 48) as $depot) {
            foreach (['Coal', 'Hay', 'Slate'] as $goods) {
                $opened = gmdate('d.m.Y', 86_400 * (9_000 + 31 * $depot));
                $amounts = array_map(fn(): float => $this->random->getInt(1_000, 990_000) / 100, $months);
                $wide[] = [7 * $depot, $goods, $opened, ...$amounts];
                foreach ($amounts as $month => $amount) {
                    $wrong = ($depot * 12 + $month) % 71 === 0;
                    $long[] = [
                        sprintf('%05d', 7 * $depot),
                        $goods,
                        gmdate('j M Y', 86_400 * (9_000 + 31 * $depot)),
                        gmdate('F', 86_400 * (15 + 30 * $month)),
                        number_format($wrong ? 100 * $amount : $amount, 2, ',', '.'),
                    ];
                }
            }
        }
        $path = "{$this->folder}/tolls.xlsx";
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        $writer->getCurrentSheet()->setName('Notes');
        $writer->addRow(WriterEntityFactory::createRowFromArray(['Handed over by the toll office']));
        $writer->addNewSheetAndMakeItCurrent()->setName('Tolls');
        foreach (
            [
                ['Wharf tolls, all depots'],
                [],
                ['Depot no', 'Goods', 'Opened', ...$months],
                ...$wide,
                ['Total', '', '', ...array_fill(0, 12, 1.0)],
            ]
            as $row
        ) {
            $writer->addRow(WriterEntityFactory::createRowFromArray($row));
        }
        $writer->close();

        return [$path, $this->put('tolls-new.csv', $this->csv(['Depot no', 'Goods', 'Opened', 'Month', 'Toll'], $long, ';'))];
    }

    private function word(int $number): string
    {
        $first = ['Alder', 'Bream', 'Coot', 'Dabchick', 'Elver', 'Fen', 'Grebe', 'Heron', 'Islet', 'Jetty', 'Keel'];
        $second = ['bank', 'brook', 'croft', 'dyke', 'ford', 'gate', 'holm', 'lock', 'mere', 'quay', 'reach', 'staithe', 'wharf'];

        return $first[$number % 11].$second[intdiv($number, 11) % 13].($number > 142 ? ' '.intdiv($number, 143) : '');
    }

    /**
     * @param  list<string>  $names
     * @param  list<list<string>>  $rows
     */
    private function csv(array $names, array $rows, string $delimiter = ','): string
    {
        $quoted = static fn(string $cell): string => strpbrk($cell, "{$delimiter}\"") === false
            ? $cell
            : '"'.str_replace('"', '""', $cell).'"';

        return implode(
            '',
            array_map(static fn(array $row): string => implode($delimiter, array_map($quoted, $row))."\n", [$names, ...$rows]),
        );
    }

    private function put(string $name, string $content): string
    {
        file_put_contents("{$this->folder}/{$name}", $content);

        return "{$this->folder}/{$name}";
    }
}
