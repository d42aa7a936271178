<?php

declare(strict_types=1);

// php steps.php FOLDER ROWS [WHAT ...]: rows a second of each reader and each step, or of those that are named, beside plain reading of the
// same rows.
require __DIR__.'/Registers.php';
require dirname(__DIR__).'/vendor/autoload.php';

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Row\Row;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

ini_set('memory_limit', '1G');
[, $folder, $rows] = $argv;
$rows = (int) $rows;
$named = array_slice($argv, 3);
$isMeant = static fn(string $what): bool => $named === [] || in_array($what, $named, true);
$csv = (new Registers($rows, 'shuffled', 12))->write($folder)['source'];
$catalogue = new ReaderCatalogue;
$columns = $catalogue->open($csv, 'old.csv')->columns()->names;
$references = new class () implements References {
    public function ledgers(): array
    {
        return [];
    }

    public function named(string $name): ReferenceTable
    {
        return $name === 'basins'
            ? new ReferenceTable(
                $name,
                ['code', 'name'],
                array_map(static fn(string $code): array => [$code, "Basin {$code}"], ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV']),
            )
            : new ReferenceTable($name, ['from', 'band'], [['0', 'short'], ['500', 'middle'], ['1000', 'long']]);
    }
};

/** @return array{float, int} seconds and rows */
$timed = static function (iterable $rows): array {
    $began = microtime(true);
    $count = 0;
    foreach ($rows as $row) {
        $count++;
    }

    return [microtime(true) - $began, $count];
};
$delivered = static function (string $path) use ($catalogue): Generator {
    foreach ($catalogue->open($path, basename($path))->records() as $record) {
        if ($record instanceof Row) {
            yield $record->line => $record->cells;
        }
    }
};
[$plain] = $timed($delivered($csv));
printf(
    "| what | rows | rows a second | times plain reading |\n| --- | --- | --- | --- |\n| plain reading, delimited | %s | %s | 1.0 |\n",
    number_format($rows),
    number_format($rows / $plain),
);

$steps = [
    ['kind' => 'keep-columns', 'columns' => array_slice($columns, 0, 6)],
    ['kind' => 'leave-out-columns', 'columns' => array_slice($columns, 6)],
    ['kind' => 'move-columns', 'columns' => array_reverse($columns)],
    ['kind' => 'rename-columns', 'names' => [['from' => 'fee', 'to' => 'charge']]],
    ['kind' => 'leave-out-rows', 'condition' => ['column' => 'fee', 'test' => 'more-than', 'value' => '900']],
    ['kind' => 'leave-out-blank-rows'],
    ['kind' => 'tidy-text', 'columns' => ['holder'], 'actions' => [['action' => 'trim'], ['action' => 'upper']]],
    ['kind' => 'read-number', 'columns' => ['fee']],
    ['kind' => 'read-date', 'columns' => ['paid_until']],
    ['kind' => 'read-yes-no', 'columns' => [$columns[count($columns) - 1]]],
    ['kind' => 'fill-blanks', 'columns' => ['holder']],
    ['kind' => 'split-column', 'column' => 'holder', 'separator' => ' ', 'into' => ['first_name', 'last_name']],
    ['kind' => 'join-columns', 'columns' => ['basin', 'berth'], 'with' => '/', 'into' => 'place'],
    ['kind' => 'compute-column', 'into' => 'with_tax', 'formula' => 'round(fee * 1.2, 2)'],
    ['kind' => 'columns-into-rows', 'columns' => ['fee', 'paid_until'], 'namesInto' => 'name', 'valuesInto' => 'value'],
    [
        'kind' => 'rows-into-columns',
        'namesFrom' => 'basin',
        'valuesFrom' => 'fee',
        'into' => ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV'],
    ],
    ['kind' => 'crosswalk', 'column' => 'basin', 'entries' => [['source' => 'KB', 'target' => 'Kestrel Broad']]],
    [
        'kind' => 'look-up',
        'reference' => 'basins',
        'on' => [['column' => 'basin', 'reference' => 'code']],
        'take' => [['reference' => 'name', 'into' => 'basin_name']],
    ],
    [
        'kind' => 'look-up-band',
        'reference' => 'bands',
        'column' => 'fee',
        'from' => 'from',
        'take' => [['reference' => 'band', 'into' => 'fee_band']],
    ],
    ['kind' => 'number-rows', 'into' => 'number', 'by' => ['basin']],
    ['kind' => 'group-rows', 'by' => ['basin', 'paid_until'], 'totals' => [['total' => 'sum', 'column' => 'fee', 'into' => 'sum']]],
    ['kind' => 'keep-one-row', 'by' => ['basin', 'berth'], 'order' => ['column' => 'fee', 'kind' => 'number']],
];
foreach (array_filter($steps, static fn(array $step): bool => $isMeant($step['kind'])) as $step) {
    $preparation = new Preparation([['id' => 'step'] + $step]);
    [$seconds] = $timed(
        $preparation->run($delivered($csv), $columns, static fn(): StepContext => new StepContext(new StepFigures, $folder, $references)),
    );
    printf("| %s | %s | %s | %.1f |\n", $step['kind'], number_format($rows), number_format($rows / $seconds), $seconds / $plain);
}

$few = intdiv($rows, 10);
$names = [
    'fixed-width' => "{$folder}/rows.txt",
    'xml' => "{$folder}/rows.xml",
    'json-lines' => "{$folder}/rows.jsonl",
    'json' => "{$folder}/rows.json",
    'xlsx' => "{$folder}/rows.xlsx",
    'ods' => "{$folder}/rows.ods",
    'gzip' => "{$folder}/rows.csv.gz",
    'zip' => "{$folder}/rows.zip",
];
$lines = fopen($names['json-lines'], 'wb');
$fixed = fopen($names['fixed-width'], 'wb');
$xml = fopen($names['xml'], 'wb');
$padded = static fn(array $cells): string => implode(
    ' ',
    array_map(static fn(string $cell): string => $cell.str_repeat(' ', max(0, 24 - mb_strlen($cell))), $cells),
)."\n";
fwrite($fixed, $padded($columns));
fwrite($xml, '<register>');
$json = fopen($names['json'], 'wb');
fwrite($json, '[');
$workbooks = [];
foreach (['xlsx' => WriterEntityFactory::createXLSXWriter(...), 'ods' => WriterEntityFactory::createODSWriter(...)] as $kind => $writer) {
    $workbooks[$kind] = $writer();
    $workbooks[$kind]->openToFile($names[$kind]);
    $workbooks[$kind]->addRow(WriterEntityFactory::createRowFromArray($columns));
}
$isFirst = true;
foreach ($delivered($csv) as $cells) {
    $object = json_encode(array_combine($columns, $cells), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    fwrite($json, ($isFirst ? '' : ',')."\n{$object}");
    $isFirst = false;
    fwrite($lines, "{$object}\n");
    fwrite($fixed, $padded($cells));
    fwrite(
        $xml,
        '<row>'.
            implode(
                '',
                array_map(
                    static fn(string $name, string $cell): string => "<{$name}>".htmlspecialchars($cell, ENT_XML1)."</{$name}>",
                    $columns,
                    $cells,
                ),
            ).
            "</row>\n",
    );
    if ($few-- > 0) {
        foreach ($workbooks as $workbook) {
            $workbook->addRow(WriterEntityFactory::createRowFromArray($cells));
        }
    }
}
fwrite($json, "\n]\n");
fwrite($xml, '</register>');
fclose($json);
fclose($xml);
fclose($fixed);
fclose($lines);
foreach ($workbooks as $workbook) {
    $workbook->close();
}
$source = fopen($csv, 'rb');
stream_copy_to_stream($source, fopen("compress.zlib://{$names['gzip']}", 'wb'));
$zip = new ZipArchive;
$zip->open($names['zip'], ZipArchive::CREATE | ZipArchive::OVERWRITE);
$zip->addFile($csv, 'rows.csv');
$zip->close();
foreach (array_filter($names, $isMeant, ARRAY_FILTER_USE_KEY) as $kind => $path) {
    [$seconds, $read] = $timed($delivered($path));
    printf(
        "| reading %s | %s | %s | %.1f |\n",
        $kind,
        number_format($read),
        number_format($read / $seconds),
        $seconds / $read / ($plain / $rows),
    );
}
printf("Peak memory: %d MB\n", intdiv(memory_get_peak_usage(true), 1_048_576));
