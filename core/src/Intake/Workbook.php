<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ReaderInterface;
use OpenSpout\Reader\SheetInterface;

/** A workbook, looked at from outside before anything of it is unpacked. */
final readonly class Workbook
{
    private const MOST_ENTRIES = 10_000;

    private const MOST_BYTES = 4 * 1024 * 1024 * 1024;

    /** Sheets of a million rows of text shrink to a twentieth; what shrinks much further was made to burst. */
    private const MOST_RATIO = 250;

    private const SMALL_BYTES = 16 * 1024 * 1024;

    private const MOST_SHARED_STRING_BYTES = 512 * 1024 * 1024;

    /**
     * @return FoundPart|null null when the archive is no workbook
     *
     * @throws NotUsable
     */
    public static function find(string $path, string $name): ?FoundPart
    {
        $kind = self::kind($path, $name);
        if ($kind === null) {
            return null;
        }
        $sheets = [];
        $reader = self::open($path, $name, $kind);
        try {
            /** @var SheetInterface $sheet */
            foreach ($reader->getSheetIterator() as $sheet) {
                $sheets[] = ['name' => $sheet->getName(), 'hidden' => ! $sheet->isVisible()];
            }
        } finally {
            $reader->close();
        }
        $visible = array_values(array_filter($sheets, static fn(array $sheet): bool => ! $sheet['hidden']));
        $first = $visible[0]['name'] ?? $sheets[0]['name'] ?? throw NotUsable::isNoWorkbook($name, 'it has no sheet');
        $hidden = count($sheets) - count($visible);

        return new FoundPart(PartFormat::workbook($kind, $first, 1, $sheets), [
            'kind' => $kind->noun(),
            'sheet' => count($sheets) === 1 ? 'its only sheet' : sprintf('the first of %d sheets%s', count($sheets), $hidden === 0 ? '' : sprintf(', %d of them hidden', $hidden)),
            'headerRow' => 'the first row that is not blank',
        ]);
    }

    /** @throws NotUsable */
    public static function open(string $path, string $name, PartKind $kind): ReaderInterface
    {
        self::kind($path, $name);
        $reader = $kind === PartKind::Ods ? ReaderEntityFactory::createODSReader() : ReaderEntityFactory::createXLSXReader();
        // Blank rows are rows of the sheet: without them the numbers of those that follow would be wrong.
        $reader->setShouldPreserveEmptyRows(true);
        try {
            $reader->open($path);
        } catch (\Throwable) {
            throw NotUsable::isNoWorkbook($name, 'it is damaged');
        }

        return $reader;
    }

    /** @throws NotUsable when the archive is made to burst, or damaged */
    private static function kind(string $path, string $name): ?PartKind
    {
        $archive = new \ZipArchive;
        if ($archive->open($path, \ZipArchive::RDONLY) !== true) {
            throw NotUsable::breaksOff($name);
        }
        $bytes = 0;
        $names = [];
        try {
            if ($archive->numFiles > self::MOST_ENTRIES) {
                throw NotUsable::isTooLargeUnpacked($name, sprintf('it holds %s files', number_format($archive->numFiles)));
            }
            for ($entry = 0; $entry < $archive->numFiles; $entry++) {
                /** @var array{name: string, size: int, comp_size: int, encryption_method: int} $facts */
                $facts = $archive->statIndex($entry);
                $bytes += $facts['size'];
                $names[$facts['name']] = true;
                if ($bytes > self::MOST_BYTES || $facts['size'] > self::SMALL_BYTES && $facts['size'] > self::MOST_RATIO * max(1, $facts['comp_size'])) {
                    throw NotUsable::isTooLargeUnpacked($name, sprintf('"%s" in it would grow to %s bytes', self::visible($facts['name']), number_format($facts['size'])));
                }
                if (str_ends_with($facts['name'], 'sharedStrings.xml') && $facts['size'] > self::MOST_SHARED_STRING_BYTES) {
                    throw NotUsable::isTooLargeUnpacked($name, 'its shared texts are too many');
                }
                if ($facts['encryption_method'] !== \ZipArchive::EM_NONE) {
                    throw NotUsable::hasPassword($name);
                }
            }
            $type = $archive->getFromName('mimetype', 200);
        } finally {
            $archive->close();
        }

        return match (true) {
            isset($names['xl/workbook.xml']) => PartKind::Xlsx,
            $type === 'application/vnd.oasis.opendocument.spreadsheet' => PartKind::Ods,
            default => null,
        };
    }

    /** Names in archives come from anywhere: characters that cannot be seen are not shown. */
    private static function visible(string $name): string
    {
        return preg_replace('/\p{C}/u', '', mb_scrub(mb_strcut($name, 0, 200))) ?? '';
    }
}
