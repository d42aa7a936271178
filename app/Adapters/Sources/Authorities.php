<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;

/** Certificates of authorities as files, as drivers want them, named by their digest. */
final readonly class Authorities
{
    public function __construct(private string $folder) {}

    /** @return string its path; '' where none is named */
    public function fileOf(Encryption $encryption): string
    {
        $pem = $encryption->authority;
        if ($pem === null) {
            return '';
        }
        $path = "{$this->folder}/authority-".hash('sha256', $pem).'.pem';
        is_dir($this->folder) || @mkdir($this->folder, 0700, true);
        if (! is_file($path) && @file_put_contents("{$path}.new", $pem) !== strlen($pem)) {
            throw NoRoom::writing();
        }
        is_file($path) || rename("{$path}.new", $path);

        return $path;
    }
}
