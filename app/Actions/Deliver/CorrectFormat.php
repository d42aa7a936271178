<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Storage\ChunkFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Problems\Conflict;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Workbooks\WorkbookDetection;

/** Puts right what the reader found, before the delivery is taken. */
final readonly class CorrectFormat
{
    /** Among the reasons: what was not found but said, by name. */
    private const CORRECTED = 'corrected';

    public function __construct(private ChunkFolder $chunks, private DeliveryReader $reader) {}

    /**
     * @param  array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int,
     *     starts?: list<int>, path?: string, sheet?: string, headerRow?: int}  $corrections
     * @param  PartKind|null  $as  a text is the other kind of table: its format is found anew
     */
    public function __invoke(Receipt $receipt, array $corrections, ?PartKind $as = null): Receipt
    {
        if ($receipt->state !== ReceiptState::Received || $receipt->format === null) {
            throw Conflict::because(
                'not-correctable',
                'This file is no longer waiting to be taken. Deliver it again to read it another way.',
            );
        }
        $format = $receipt->partFormat();
        $path = $this->chunks->path($receipt);
        if ($as !== null && $as !== $format->kind && ($format->delimited !== null || $format->fixedWidth !== null)) {
            $found = $this->reader->catalogue()->findAs($as, $path, $receipt->file_name);
            [$format, $receipt->found] = [$found->format, $found->reasons];
        }
        $corrected = $format->with($corrections);
        $found = $receipt->found ?? [];
        if ($format->kind->isWorkbook() && isset($corrections['sheet']) && ! isset($corrections['headerRow'])) {
            // Another sheet has its table elsewhere.
            $inSheet = WorkbookDetection::inSheet($path, $receipt->file_name, $corrected);
            [$corrected, $found] = [$inSheet->format, [...array_diff_key($found, ['skipBelow' => '']), ...$inSheet->reasons]];
        }
        $this->reader->mustBeReadable($path, $receipt->file_name, $corrected);
        // What somebody said is not told as if it had been found.
        $said = array_unique([...explode(' ', $found[self::CORRECTED] ?? ''), ...array_keys($corrections)]);
        $workbook = $receipt->workbookName();
        $receipt->update([
            'file_name' => $workbook === $receipt->file_name ? $workbook : Receipt::nameOfSheet($workbook, $corrected->sheet),
            'format' => $corrected->toArray(),
            'found' => [...$found, self::CORRECTED => trim(implode(' ', $said))],
        ]);

        return $receipt;
    }
}
