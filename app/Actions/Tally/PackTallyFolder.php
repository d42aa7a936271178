<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Tally;
use App\Queries\Tally\FolderOfTally;
use Illuminate\Support\Str;

/** Packs all that a tally was made of, with the command that makes it again, into one file to take away. */
final readonly class PackTallyFolder
{
    /** What tells a person how to go on; the command line does not look at it. */
    private const ADVICE = 'make-it-again.txt';

    public function __construct(private FolderOfTally $folder) {}

    /**
     * @param  string  $name  the folder that it unpacks to
     * @return string the path of a file that whoever takes it removes
     *
     * @throws \RuntimeException when it cannot be written
     */
    public function __invoke(Tally $tally, string $name): string
    {
        $path = storage_path('work/tally-'.Str::random(24).'.zip');
        ['texts' => $texts, 'files' => $files] = $this->folder->of($tally);
        $texts[self::ADVICE] =
            "With Nine Tally's command line this makes the tally again, with the same figures and findings:\n\n  ".
            FolderOfTally::command($name).
            "\n";
        $archive = new \ZipArchive;
        $isWritten = $archive->open($path, \ZipArchive::CREATE) === true;
        foreach ($texts as $file => $content) {
            $isWritten = $isWritten && $archive->addFromString("{$name}/{$file}", $content);
        }
        foreach ($files as $file => $bytes) {
            // To pack them smaller would take minutes where there are gigabytes, and somebody waits.
            $isWritten =
                $isWritten &&
                $archive->addFile($bytes, "{$name}/{$file}") &&
                $archive->setCompressionName("{$name}/{$file}", \ZipArchive::CM_STORE);
        }
        if (! $isWritten || ! @$archive->close()) {
            @unlink($path);
            throw new \RuntimeException(
                'The file to take away could not be written: the disk of Nine Tally has no room for it. Tell whoever runs it.',
            );
        }

        return $path;
    }
}
