<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Storage\TrialSamples;
use Illuminate\Database\Connection;

/** What questions are answered from. */
final readonly class QuestionContext
{
    /** @param string $workFolder for what is put aside while an answer is found */
    public function __construct(
        public DeliveryReader $reader,
        public PreparedSides $sides,
        public TrialSamples $samples,
        public Connection $database,
        private string $workFolder,
    ) {}

    /**
     * @template Result
     *
     * @param  \Closure(string): Result  $work  gets a folder of its own, which is gone afterwards
     * @return Result
     */
    public function withFolder(\Closure $work): mixed
    {
        $folder = "{$this->workFolder}/answer-".bin2hex(random_bytes(8));
        mkdir($folder, 0700, true);
        try {
            return $work($folder);
        } finally {
            array_map(unlink(...), glob("{$folder}/*") ?: []);
            rmdir($folder);
        }
    }
}
