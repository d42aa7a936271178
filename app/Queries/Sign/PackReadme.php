<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Seal\SealKey;

/** What a pack says of itself: what is in it, and how anybody verifies it. */
final readonly class PackReadme
{
    public static function of(string $about, SealKey $key, bool $isStamped): string
    {
        $fingerprint = $key->fingerprint();
        [$token, $authority] = [BagWriter::TIME_STAMP, BagWriter::AUTHORITY];
        $stamp = $isStamped ? <<<TEXT
            A service vouches for the time at which the seal was there (RFC 3161). This verifies it; whether you trust the certificates in
            {$authority} is yours to say.

              openssl ts -verify -data seal/seal.json -in {$token} -CAfile {$authority}


            TEXT : '';

        return <<<TEXT
            Evidence of a reconciliation: {$about}

            data/report.html and data/report.pdf say what was compared and what was found; data/datapackage.json describes the tables.
            data/purges.csv says whether anything of it was purged before the pack was made.

            Three commands, in this folder, verify all of it with nothing but common tools. The first says whether any file was changed, the
            second whether the seal was made with the key in seal/key.pem, the third whether the seal is over these files.

              sha256sum -c manifest-sha256.txt tagmanifest-sha256.txt
              openssl pkeyutl -verify -pubin -inkey seal/key.pem -rawin -in seal/seal.json -sigfile seal/seal.sig
              grep -c "\$(sha256sum tagmanifest-sha256.txt | cut -c1-64)" seal/seal.json

            Whoever changed the files could seal them anew with a key of their own: compare the fingerprint of the key with the one that you
            were told by whoever keeps the installation, or that is printed in a report that you hold.

              openssl pkey -pubin -in seal/key.pem -outform DER | sha256sum
              {$fingerprint}

            Where the installation has changed its key, data/keys has what each key said of the one that followed: the second command
            verifies that too, with the key, the statement and the signature of the same number.

            {$stamp}Nine Tally does the same, to the file: core/bin/nine-tally check PACK.zip --key={$fingerprint}
            Where the pack has the deliveries, --again computes the tally once more and holds it against what the engine gave.

            TEXT;
    }
}
