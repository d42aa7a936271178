<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\OuterGate;
use App\Adapters\Sources\SourceProblem;
use Aws\Exception\AwsException;
use Aws\S3\S3Client;
use League\Flysystem\AwsS3V3\AwsS3V3Adapter;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemReader;

/** A bucket of a store that is asked as S3 is. */
final readonly class ObjectStore implements FileStore
{
    use StreamedBlocks;

    /**
     * @param  string  $url  where the store stands; '' for the one of the region
     * @param  string  $folder  what the names of its files begin with
     */
    public function __construct(
        private OuterGate $gate,
        private string $url,
        private string $region,
        private string $bucket,
        private string $folder,
        private string $user,
        #[\SensitiveParameter]
        private string $secret,
    ) {}

    public function enter(): FilesystemReader
    {
        $url = $this->url === '' ? "https://s3.{$this->region}.amazonaws.com" : $this->url;
        $store = new S3Client([
            'version' => '2006-03-01',
            'region' => $this->region,
            'endpoint' => $url,
            // So that the name that was looked at is the name that is asked, whatever the bucket is called.
            'use_path_style_endpoint' => true,
            'credentials' => ['key' => $this->user, 'secret' => $this->secret],
            'retries' => 3,
            'http' => [
                'connect_timeout' => 10,
                'read_timeout' => 60,
                'allow_redirects' => false,
                'curl' => $this->gate->to($url)['curl'],
            ],
        ]);

        return new Filesystem(new AwsS3V3Adapter($store, $this->bucket, $this->folder));
    }

    public function problem(\Throwable $thrown): SourceProblem
    {
        $said = $thrown;
        while ($said !== null && ! $said instanceof AwsException) {
            $said = $said->getPrevious();
        }
        $place = $this->url === '' ? 'The store' : (string) parse_url($this->url, PHP_URL_HOST);

        return new SourceProblem(
            match ($said?->getAwsErrorCode() ?? '') {
                'NoSuchBucket' => "There is no bucket called {$this->bucket}. Check its name, and where the store stands",
                'InvalidAccessKeyId', 'SignatureDoesNotMatch' => "{$place} refuses this key with this secret. Check both, and the region",
                'AccessDenied' => "This key may not list or read {$this->bucket}. Ask for the right to do both",
                'PermanentRedirect', 'AuthorizationHeaderMalformed' => "The bucket {$this->bucket} is in another region. Check the region",
                default => $said?->isConnectionError() === true
                    ? "Nobody answers at {$place}. Check the address, and whether it may be reached from here"
                    : "{$place} does not answer as S3 does, or broke off. Check the address, and try again",
            },
            previous: $thrown,
        );
    }
}
