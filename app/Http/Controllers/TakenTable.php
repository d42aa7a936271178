<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Queries\TakeAway\Table;
use App\Queries\TakeAway\TableText;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** A table as a file in an open format, written while it is sent: as CSV, or as JSON Lines ("as=json-lines"). */
final readonly class TakenTable
{
    /** @param string $name of the file, without its ending */
    public static function as(Request $request, Table $table, string $name): StreamedResponse
    {
        $asLines = $request->string('as')->toString() === 'json-lines';
        $forSpreadsheets = ! $asLines && $request->string('for')->toString() === 'spreadsheets';
        $text = new TableText($table);

        return self::sent(
            $asLines ? $text->jsonLines() : $text->csv($forSpreadsheets),
            $name.($forSpreadsheets ? '-for-spreadsheets' : ''),
            $asLines,
        );
    }

    /** @param iterable<string> $lines of JSON Lines or CSV */
    public static function sent(iterable $lines, string $name, bool $asLines): StreamedResponse
    {
        return response()->streamDownload(
            static function () use ($lines): void {
                foreach ($lines as $line) {
                    echo $line;
                }
            },
            $name.($asLines ? '.jsonl' : '.csv'),
            ['Content-Type' => $asLines ? 'application/jsonl' : 'text/csv; charset=utf-8'],
        );
    }
}
